<script lang="ts">
	import '../app.css';
	import { Toaster } from 'svelte-sonner';
	import { onMount } from 'svelte';
	import { answerEarlyClick } from '$lib/ui/platform/early';

	let { children } = $props();
	let ready = $state(false);

	onMount(() => {
		const dark = matchMedia('(prefers-color-scheme: dark)');
		const apply = () => {
			const chosen = localStorage.getItem('cupboard-theme');
			document.documentElement.dataset.theme = chosen ?? (dark.matches ? 'dark' : 'light');
		};
		apply();
		dark.addEventListener('change', apply);
		ready = true;
		answerEarlyClick();
		return () => dark.removeEventListener('change', apply);
	});
</script>

{@render children()}
<Toaster
	position="bottom-center"
	offset={{ bottom: 'calc(24px + var(--phone-bar))' }}
	mobileOffset={{ bottom: 'calc(16px + var(--phone-bar))' }}
	toastOptions={{
		class: 'font-sans',
		style: 'background: var(--ink); color: var(--sheet); border: 0; border-radius: 3px'
	}}
/>
{#if ready}<div data-ready hidden></div>{/if}
