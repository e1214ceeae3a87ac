<script lang="ts">
	import { comparedAs, kindWord } from '../../core/files/kinds';
	import type { FileToShow } from '../viewers/shown';
	import SheetCompare from './SheetCompare.svelte';
	import TableCompare from './TableCompare.svelte';
	import TextCompare from './TextCompare.svelte';

	/** Two files laid against each other by their kind: sheets, schedules or texts; what cannot be compared says why. */
	let {
		before,
		after,
		same,
		heading,
		fileName,
		mayDownload,
		total = $bindable(0),
		current = $bindable(-1)
	}: {
		before: Compared;
		after: Compared;
		/** The two have the same bytes. */
		same: boolean;
		heading: string;
		/** Of what is saved of it, without its ending. */
		fileName: string;
		mayDownload: boolean;
		/** How many things differ, and which of them is shown. */
		total?: number;
		current?: number;
	} = $props();
	type Compared = FileToShow & { label: string; fileName: string };

	const kind = $derived(comparedAs(before.mediaType, after.mediaType));
	let fault = $state('');
	let shown = $state<{ show: (index: number) => void }>();
	const failed = (sentence: string) => (fault = sentence);
	const pair = $derived(`${before.url} ${after.url}`);
	$effect(() => {
		void pair;
		fault = '';
		total = 0;
		current = -1;
	});
	/** Goes on to another of what differs, round and round. */
	export function step(by: number) {
		if (total) shown?.show((current + by + total) % total);
	}
</script>

<svelte:head>
	<!-- Files are under way while the page still comes to life. -->
	{#if kind === 'sheets' && !same}{#each [before, after] as one (one.url)}{#if !one.made}<link
					rel="preload"
					as="fetch"
					crossorigin="anonymous"
					href={one.url}
				/>{/if}{/each}{/if}
</svelte:head>
{#if same || fault || !kind}
	<div class="grid h-full place-items-center">
		<p class="border border-ink bg-sheet p-6">
			{#if same}The two have the very same bytes; nothing differs.
			{:else if fault}{fault}
			{:else}{kindWord(before.mediaType, before.fileName)} and {kindWord(after.mediaType, after.fileName)} files
				are not compared here.{/if}
		</p>
	</div>
{:else}
	{#key before.url + after.url}
		{#if kind === 'sheets'}<SheetCompare
				bind:this={shown}
				bind:total
				bind:current
				{before}
				{after}
				{heading}
				{fileName}
				{mayDownload}
				{failed}
			/>
		{:else if kind === 'tables'}<TableCompare
				bind:this={shown}
				bind:total
				bind:current
				{before}
				{after}
				{failed}
			/>
		{:else}<TextCompare bind:this={shown} bind:total bind:current {before} {after} {failed} />{/if}
	{/key}
{/if}
