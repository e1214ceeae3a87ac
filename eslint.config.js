import ts from 'typescript-eslint';
import svelte from 'eslint-plugin-svelte';
import house from './scripts/lint/house.mjs';
import svelteConfig from './svelte.config.js';

/** Components only: oxlint reads everything else (.oxlintrc.json). */
export default ts.config(
	{ ignores: ['build/', '.svelte-kit/', '.cupboard*/', '**/*.{js,mjs,cjs,ts}', '!**/*.svelte.ts'] },
	...ts.configs.recommended,
	...svelte.configs.recommended,
	{
		files: ['**/*.svelte', '**/*.svelte.ts'],
		languageOptions: {
			parserOptions: { parser: ts.parser, extraFileExtensions: ['.svelte'], svelteConfig }
		},
		plugins: { house },
		rules: {
			'@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_' }],
			// The application is always served from the root of its host.
			'svelte/no-navigation-without-resolve': 'off',
			// Most maps, sets and dates here are local to a function; what is shown uses SvelteSet.
			'svelte/prefer-svelte-reactivity': 'off',
			'no-console': ['error', { allow: ['warn', 'error'] }],
			'house/days': 'error',
			'house/addresses': 'error',
			'house/kinds': 'error'
		}
	}
);
