<script lang="ts">
	import type { Snippet } from 'svelte';

	/** Things of one sort that wait, under their head with their count. */
	let { head, count, children }: { head: string; count: number; children: Snippet } = $props();
	const id = $props.id();
</script>

<section class="mb-4" aria-labelledby={id}>
	<h2 {id} class="mb-1 text-[15px]">
		{head} <span class="font-mono text-[12px] font-normal text-ink-2">{count}</span>
	</h2>
	<ul>{@render children()}</ul>
</section>
