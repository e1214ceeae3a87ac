<script lang="ts">
	import { DRAWN_KINDS } from '../../core/releases/drawn';
	import type { KeptMarks } from '../markup/kept.svelte';
	import type { Markup } from '../markup/markup.svelte';
	import MarkupTools from '../markup/MarkupTools.svelte';

	/** The tools with which who answers draws on the sheet, and whether what they drew is kept. */
	let {
		line,
		markup,
		codes,
		grow,
		done
	}: {
		line: KeptMarks;
		markup: Markup;
		codes: string[];
		/** Draws what is chosen larger or smaller. */
		grow: (factor: number) => void;
		/** They have drawn what they wanted. */
		done: () => void;
	} = $props();
	const TOOLS = ['choose', ...DRAWN_KINDS] as const;
</script>

<!-- What is not kept yet would be lost with the page. -->
<svelte:window onbeforeunload={(event) => line.state !== 'kept' && event.preventDefault()} />
<MarkupTools {markup} {codes} tools={TOOLS} {grow} {standing} />
{#snippet standing()}<div class="flex items-start gap-2 md:block">
		<p role="status" class="min-w-0 flex-1 text-ink-2">
			{#if line.state === 'kept'}Everything is kept
			{:else if line.state === 'keeping'}keeping…
			{:else if line.state === 'waiting'}<span class="text-lock"
					>The line is down. Go on; what you drew is kept once it is back.</span
				>
			{:else}<span class="text-fault">Not kept: {line.why}</span>{/if}
		</p>
		<button class="button shrink-0 md:mt-2 md:w-full" onclick={done}>Done drawing</button>
	</div>{/snippet}
