<script lang="ts">
	import type { Snippet } from 'svelte';
	import type { Way, Waiting } from './ways';

	/** The pages within a way in, as a line below the band. */
	let {
		way,
		here,
		base,
		waiting,
		children
	}: {
		way: Way;
		/** The path of the page that is open. */
		here: string;
		base: string;
		waiting: Waiting;
		children?: Snippet;
	} = $props();
	let line: HTMLElement | undefined = $state();
	// On a phone there may be more pages than room; the one that is open is never among those cut off.
	$effect(() => {
		void here;
		line?.querySelector('[aria-current]')?.scrollIntoView({ block: 'nearest', inline: 'nearest' });
	});
</script>

<nav
	bind:this={line}
	class="flex shrink-0 [scrollbar-width:none] gap-x-3 overflow-x-auto border-b border-rule px-3 md:gap-x-4 md:px-4"
	aria-label="Within {way.word}"
>
	{#each way.inside as page (page.path)}
		{@const current = page.path === here}
		{@const count = page.count ? waiting[page.count] : 0}
		<a
			href="{base}/{page.path}"
			aria-current={current ? 'page' : undefined}
			class="flex items-baseline gap-1.5 border-b-2 py-2 whitespace-nowrap {current
				? 'border-ink font-semibold'
				: 'border-transparent text-ink-2 hover:text-ink'}"
			>{page.word}{#if count}<span class="font-mono text-[12px]">{count}</span>{/if}</a
		>
	{/each}
	{@render children?.()}
</nav>
