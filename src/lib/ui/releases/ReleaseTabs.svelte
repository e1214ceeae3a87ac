<script lang="ts">
	import type { Snippet } from 'svelte';

	/** The two ways to look at what was released: release by release, or who holds what. */
	let { base, at, children }: { base: string; at: 'releases' | 'holders'; children?: Snippet } = $props();
	const tabs = $derived([
		{ at: 'releases', word: 'Releases', href: base },
		{ at: 'holders', word: 'Who holds what', href: `${base}/holders` }
	]);
</script>

<div class="flex flex-wrap items-center gap-x-4 gap-y-1 px-5 pt-3 pb-2">
	<h1 class="text-[21px]">Releases</h1>
	<nav class="flex gap-4" aria-label="Releases">
		{#each tabs as tab (tab.at)}<a
				href={tab.href}
				class="border-b-2 py-1 {tab.at === at
					? 'border-ink font-semibold'
					: 'border-transparent text-ink-2 hover:text-ink'}"
				aria-current={tab.at === at ? 'page' : undefined}>{tab.word}</a
			>{/each}
	</nav>
	{@render children?.()}
</div>
