<script lang="ts" generics="One extends { name: string; title?: string }">
	import type { Snippet } from 'svelte';
	import { fits } from '../../core/words/plain';
	import { plural } from '../platform/words';

	/**
	 * Some of many, where all of them would be too many to show or to find one's way in: a long list is narrowed by the
	 * beginnings of words, and what is past the most that is shown is found so.
	 */
	let {
		label,
		items,
		children
	}: {
		label: string;
		items: readonly One[];
		/** What is shown of them, each with its place among all, and whether these are all. */
		children: Snippet<[{ one: One; at: number }[], boolean]>;
	} = $props();

	/** From so many on there is something to find. */
	const LONG = 20;
	const MOST = 200;
	let words = $state('');
	const found = $derived(
		items
			.map((one, at) => ({ one, at }))
			.filter(({ one }) => !words || fits(words, `${one.name} ${one.title ?? ''}`))
	);
</script>

{#if items.length > LONG}<input
		class="field mb-1"
		type="search"
		data-aside
		aria-label="Find in {label}"
		placeholder="Number or title"
		bind:value={words}
		onkeydown={(event) => event.key === 'Enter' && event.preventDefault()}
	/>{/if}
{@render children(found.slice(0, MOST), found.length === items.length && found.length <= MOST)}
{#if found.length > MOST}<p class="mt-1 text-[12px] text-ink-2">
		{plural(found.length - MOST, 'more', 'more')}; type words to find them.
	</p>{:else if !found.length && items.length}<p class="mt-1 text-[12px] text-ink-2">
		None has these words.
	</p>{/if}
