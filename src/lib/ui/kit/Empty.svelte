<script lang="ts">
	import type { Snippet } from 'svelte';

	/** What stands where there is nothing yet: what will stand there, how it comes, and the way to it. */
	let { children, action }: { children: Snippet; action?: Snippet } = $props();
</script>

<div class="space-y-3 px-4 py-6 text-center text-ink-2">
	<p class="mx-auto max-w-[52ch]">{@render children()}</p>
	{#if action}<p>{@render action()}</p>{/if}
</div>
