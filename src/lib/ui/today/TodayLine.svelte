<script lang="ts">
	import type { Snippet } from 'svelte';

	/** One thing that waits: until when, what it is, and what can be done with it in place. */
	let {
		day,
		late = false,
		code,
		href,
		what,
		more = '',
		acts
	}: {
		/** Until when, in words. */
		day: string;
		late?: boolean;
		/** The number it goes by. */
		code: string;
		href: string;
		what: string;
		/** What is told of it beside, more quietly. */
		more?: string;
		acts: Snippet;
	} = $props();
</script>

<li
	class="flex flex-wrap items-center gap-x-4 gap-y-1 border-b border-rule-2 bg-sheet px-2 py-1 last:border-rule"
>
	<span class="w-[92px] shrink-0 whitespace-nowrap {late ? 'font-semibold text-fault' : 'text-ink-2'}"
		>{day}</span
	>
	<a class="w-[176px] shrink-0 truncate font-mono text-[12px] hover:underline" {href}>{code}</a>
	<span class="min-w-[200px] flex-1"
		><b class="font-semibold">{what}</b>
		{#if more}<span class="text-ink-2">{more}</span>{/if}</span
	>
	<span class="ml-auto flex items-center gap-2.5 whitespace-nowrap">{@render acts()}</span>
</li>
