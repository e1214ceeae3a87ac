<script lang="ts">
	import type { Snippet } from 'svelte';

	/** A short list beside what waits, with the way to the whole of it. */
	let {
		head,
		count = 0,
		empty,
		more,
		filled,
		children
	}: {
		head: string;
		count?: number;
		/** What will stand there, and how it comes. */
		empty: string;
		more?: Snippet;
		filled: boolean;
		children: Snippet;
	} = $props();
	const id = $props.id();
</script>

<section class="mb-4" aria-labelledby={id}>
	<div class="mb-0.5 flex items-baseline gap-1.5">
		<h2 {id} class="text-[15px]">{head}</h2>
		{#if count}<span class="font-mono text-[12px] text-ink-2">{count}</span>{/if}
		<span class="ml-auto text-[12px]">{@render more?.()}</span>
	</div>
	{#if filled}<ul
			class="[&>li]:flex [&>li]:items-baseline [&>li]:gap-2 [&>li]:border-b [&>li]:border-rule [&>li]:py-1.5"
		>
			{@render children()}
		</ul>{:else}<p class="text-[12px] text-ink-2">{empty}</p>{/if}
</section>
