import ts from 'typescript-eslint';
import svelte from 'eslint-plugin-svelte';
import svelteConfig from './svelte.config.js';

export default ts.config(
	{ ignores: ['build/', '.svelte-kit/', 'node_modules/', '.cupboard*/', 'test-results/', 'static/pdfjs/'] },
	...ts.configs.recommended,
	...svelte.configs.recommended,
	{
		files: ['**/*.svelte', '**/*.svelte.ts'],
		languageOptions: {
			parserOptions: { parser: ts.parser, extraFileExtensions: ['.svelte'], svelteConfig }
		}
	},
	{
		rules: {
			'@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_' }],
			// The application is always served from the root of its host.
			'svelte/no-navigation-without-resolve': 'off',
			// Most maps, sets and dates here are local to a function; what is shown uses SvelteSet.
			'svelte/prefer-svelte-reactivity': 'off',
			'no-console': ['error', { allow: ['warn', 'error'] }]
		}
	},
	{
		// Days are reckoned in one room, which knows the zones and the clocks that change.
		files: ['src/**', 'scripts/**'],
		ignores: ['src/lib/core/time/**'],
		rules: {
			'no-restricted-syntax': [
				'error',
				{
					selector: 'Literal[value=86400000]',
					message: 'Spans of days are in core/time/spans.'
				},
				{
					selector:
						"CallExpression[callee.property.name=/^(slice|substring|split)$/] > MemberExpression > CallExpression[callee.property.name='toISOString']",
					message: 'The day of a moment is told by core/time/days, in a time zone.'
				},
				{
					selector:
						'CallExpression[callee.property.name=/^(get|set)(UTC)?(Day|Date|Month|FullYear)$/][callee.object.type!="ThisExpression"]',
					message: 'Days are reckoned in core/time.'
				}
			]
		}
	},
	{ files: ['scripts/**', 'tests/**', 'bench/**'], rules: { 'no-console': 'off' } }
);
