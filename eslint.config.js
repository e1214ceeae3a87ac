import ts from 'typescript-eslint';
import svelte from 'eslint-plugin-svelte';
import svelteConfig from './svelte.config.js';

/** Days are reckoned in one room, which knows the zones and the clocks that change. */
const DAYS = [
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
];

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
		files: ['src/**', 'scripts/**'],
		ignores: ['src/lib/core/time/**'],
		rules: {
			'no-restricted-syntax': ['error', ...DAYS]
		}
	},
	{
		// The contract says where everything is; nobody else writes an address of the API.
		files: ['src/lib/**', 'src/routes/**'],
		ignores: ['src/lib/core/acts/api.ts', 'src/lib/core/time/**', '**/*.test.ts'],
		rules: {
			'no-restricted-syntax': [
				'error',
				...DAYS,
				{
					selector: 'Literal[value=/^.?api.v1/]',
					message: 'Ask through the client, or fill an address with addressOf.'
				},
				{
					selector: 'TemplateElement[value.raw=/api.v1/]',
					message: 'Ask through the client, or fill an address with addressOf.'
				},
				{
					selector: 'SvelteLiteral[value=/api.v1/]',
					message: 'Ask through the client, or fill an address with addressOf.'
				},
				{
					selector:
						"CallExpression[callee.property.name=/^(startsWith|endsWith|includes|match|test)$/] MemberExpression[object.name=/^(n|event|notice)$/][property.name='kind']",
					message: 'What an event concerns is told by the catalogue (core/events), not by its name.'
				}
			]
		}
	},
	{ files: ['scripts/**', 'tests/**', 'bench/**'], rules: { 'no-console': 'off' } }
);
