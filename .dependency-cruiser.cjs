/** The house rule: arrows go down only (docs/architecture.md). */
module.exports = {
	forbidden: [
		{
			name: 'core-is-pure',
			comment:
				'core holds rules: no server, no interface, no framework, no I/O. Shared texts are Yjs documents in the words of a ProseMirror schema; both are data models, formulas and XFDF are read by pure parsers, marks are written onto pages of a PDF in memory; days are reckoned by a calendar library and encodings told by statistics, both without I/O.',
			severity: 'error',
			from: { path: '^src/lib/core', pathNot: '\\.test\\.ts$' },
			to: {
				pathNot: [
					'^src/lib/core',
					// Its types stand where the resolver does not look for its program.
					'^numfmt$',
					'^node_modules/(canonicalize|diff|node-diff3|zod|yjs|y-prosemirror|lib0|prosemirror-(model|state|tables)|@handlewithcare|fractional-indexing|@formulajs|saxes|@cantoo|@internationalized|chardet)/'
				]
			}
		},
		{
			name: 'ui-never-imports-server',
			severity: 'error',
			from: { path: '^src/lib/(ui|workers)' },
			to: { path: ['^src/lib/server', '^src/routes'] }
		},
		{
			name: 'formats-know-only-core',
			comment:
				'What the browser and the server share of a file kind: read in memory, without I/O and without a page.',
			severity: 'error',
			from: { path: '^src/lib/formats' },
			to: { path: ['^src/lib/(ui|server|workers)', '^src/routes', '^node_modules/(svelte|@sveltejs)/'] }
		},
		{
			name: 'server-never-imports-upward',
			severity: 'error',
			from: { path: '^src/lib/server' },
			to: { path: ['^src/lib/ui', '^src/routes', '^node_modules/(svelte|@sveltejs)/'] }
		},
		{
			name: 'platform-below-nouns',
			comment:
				'The ground that all nouns of the server stand on. It asks only who reaches what, and writes the trail; of live rooms and reading it knows the types that `Services` hands round.',
			severity: 'error',
			from: { path: '^src/lib/server/platform', pathNot: 'platform/services\\.ts$' },
			to: {
				path: '^src/lib/server/',
				pathNot: ['^src/lib/server/(platform|formats)/', '^src/lib/server/(access/reach|trail/write)\\.ts$']
			}
		},
		{
			name: 'api-above-nouns',
			comment:
				'The registries, what answers the public API, and the start know every noun; no noun knows them.',
			severity: 'error',
			from: { path: '^src/lib/server/', pathNot: '^src/lib/server/api/' },
			to: { path: '^src/lib/server/api/' }
		},
		{
			name: 'kit-below-screens',
			comment: 'The parts that every screen is made of know no screen.',
			severity: 'error',
			from: { path: '^src/lib/ui/(kit|platform)/' },
			to: { path: '^src/lib/ui/', pathNot: '^src/lib/ui/(kit|platform)/' }
		},
		{
			name: 'routes-hold-no-sql',
			comment: 'A route parses, calls and renders; queries live in views and acts.',
			severity: 'error',
			from: { path: '^src/routes' },
			to: { path: ['^node_modules/(drizzle-orm|postgres)/', '^src/lib/server/platform/db/schema'] }
		},
		{
			name: 'no-loose-files',
			comment: 'Every file has a room, named by its subject.',
			severity: 'error',
			from: { path: '^src/lib/(core|formats|server|ui)/[^/]+$' },
			to: {}
		},
		{
			name: 'no-loose-files-asked',
			severity: 'error',
			from: {},
			to: { path: '^src/lib/(core|formats|server|ui)/[^/]+$' }
		},
		{ name: 'no-circular', severity: 'error', from: {}, to: { circular: true } }
	],
	options: {
		doNotFollow: { path: 'node_modules' },
		tsPreCompilationDeps: true,
		tsConfig: { fileName: 'tsconfig.json' },
		enhancedResolveOptions: {
			exportsFields: ['exports'],
			conditionNames: ['import', 'require', 'node', 'default', 'types', 'svelte']
		}
	}
};
