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
					'^node_modules/(canonicalize|diff|node-diff3|zod|yjs|y-prosemirror|lib0|prosemirror-(model|state|tables)|@handlewithcare|fractional-indexing|fast-formula-parser|saxes|@cantoo|@internationalized|chardet)/'
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
			name: 'routes-hold-no-sql',
			comment: 'A route parses, calls and renders; queries live in views and acts.',
			severity: 'error',
			from: { path: '^src/routes' },
			to: { path: ['^node_modules/(drizzle-orm|postgres)/', '^src/lib/server/db/schema'] }
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
