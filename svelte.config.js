import adapter from './scripts/parts/adapter.mjs';
import { vitePreprocess } from '@sveltejs/vite-plugin-svelte';

/** @type {import('@sveltejs/kit').Config} */
export default {
	preprocess: vitePreprocess(),
	kit: {
		adapter,
		// Every change, by form or not, is checked in hooks.server.ts, where tokens are known too.
		csrf: { trustedOrigins: ['*'] },
		csp: {
			mode: 'nonce',
			directives: {
				'default-src': ['self'],
				'script-src': ['self', 'wasm-unsafe-eval'],
				'worker-src': ['self'],
				// Positions of virtual rows and the sheet's transform are style attributes.
				'style-src': ['self', 'unsafe-inline'],
				'img-src': ['self', 'data:', 'blob:'],
				'media-src': ['self', 'blob:'],
				'font-src': ['self', 'data:'],
				'connect-src': ['self'],
				'object-src': ['none'],
				'frame-ancestors': ['none'],
				'form-action': ['self'],
				'base-uri': ['none']
			}
		}
	}
};
