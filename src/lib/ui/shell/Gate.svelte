<script lang="ts">
	import type { Snippet } from 'svelte';
	import Mark from './Mark.svelte';

	/** The frame of pages before sign-in: one small sheet with one task. */
	let { title, children }: { title: string; children: Snippet } = $props();
</script>

<svelte:head><title>{title} · Cupboard</title></svelte:head>
<div class="flex min-h-screen flex-col">
	<header class="flex h-12 items-center gap-2 bg-frame px-4 text-on-frame">
		<Mark /><b class="text-[16px] [font-stretch:110%]">Cupboard</b>
	</header>
	<main class="mx-auto mt-[9vh] w-[92vw] max-w-[400px] rounded-md border border-ink bg-sheet p-6">
		<h1 class="mb-4 text-[20px]">{title}</h1>
		{@render children()}
	</main>
</div>
