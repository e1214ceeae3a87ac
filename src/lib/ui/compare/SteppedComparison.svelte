<script lang="ts">
	import type { ComponentProps, Snippet } from 'svelte';
	import { useShortcuts } from '../platform/shortcuts.svelte';
	import Comparison from './Comparison.svelte';

	/** Two files laid against each other under a heading, with the way from change to change in it. */
	let {
		head,
		...compared
	}: {
		/** Stands above; given what steps through the changes, to stand at its end. */
		head: Snippet<[Snippet]>;
	} & Omit<ComponentProps<typeof Comparison>, 'total' | 'current'> = $props();
	let total = $state(0);
	let current = $state(-1);
	let comparison = $state<Comparison>();
	const step = (by: number) => comparison?.step(by);
	$effect(() =>
		useShortcuts([
			{ key: ']', says: 'Next change', run: () => step(1) },
			{ key: '[', says: 'Change before', run: () => step(-1) }
		])
	);
</script>

{@render head(steps)}
<div class="min-h-0 flex-1">
	<Comparison bind:this={comparison} bind:total bind:current {...compared} />
</div>
{#snippet steps()}<span class="ml-auto flex items-center gap-2" role="status"
		>{#if total}<button class="button" aria-label="Change before" onclick={() => step(-1)}>‹</button><span
				>{current < 0 ? total : `${current + 1} of ${total}`} {total === 1 ? 'change' : 'changes'}</span
			><button class="button" aria-label="Next change" onclick={() => step(1)}>›</button>{/if}</span
	>{/snippet}
