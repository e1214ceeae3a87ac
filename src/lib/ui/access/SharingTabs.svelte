<script lang="ts">
	import { page } from '$app/state';

	/** The pages about what goes out and comes in: grants, passes and hatches, arrivals. */
	let { base }: { base: string } = $props();
	const TABS = [
		['sharing', 'Shared'],
		['passes', 'Passes and hatches'],
		['arrivals', 'Arrivals']
	] as const;
</script>

<nav class="flex gap-1 px-5" aria-label="Sharing">
	{#each TABS as [path, word] (path)}
		{@const current = page.url.pathname.endsWith(`/${path}`)}
		<a
			href="{base}/{path}"
			aria-current={current ? 'page' : undefined}
			class="border-b-2 px-2 py-1.5 font-semibold {current ? 'border-ink' : 'border-transparent text-ink-2'}"
			>{word}</a
		>
	{/each}
</nav>
