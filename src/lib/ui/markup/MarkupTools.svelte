<script lang="ts" module>
	import type { Tool } from './markup.svelte';

	const LABEL: Record<Tool, string> = {
		choose: 'Select',
		cloud: 'Cloud',
		arrow: 'Arrow',
		line: 'Line',
		polyline: 'Polyline',
		rectangle: 'Rectangle',
		ellipse: 'Ellipse',
		freehand: 'Freehand',
		highlight: 'Highlight',
		text: 'Text',
		callout: 'Callout',
		dimension: 'Dimension',
		area: 'Area',
		count: 'Count',
		stamp: 'Stamp',
		scale: 'Set the scale'
	};
	const TOOLS = Object.keys(LABEL) as Tool[];
</script>

<script lang="ts">
	import Select from '../kit/Select.svelte';
	import type { MarkKind } from '../../core/markup/mark';
	import { WITH_WORDS } from '../../core/markup/mark';
	import type { StampKind } from '../../core/markup/stamps';
	import MarkLayers from './MarkLayers.svelte';
	import type { Snippet } from 'svelte';
	import { plural } from '../platform/words';
	import type { Markup } from './markup.svelte';

	/** The tools beside a sheet: what to draw, what to do with what is chosen, and which layers are shown. */
	let {
		markup,
		codes,
		tools = TOOLS,
		layers = '',
		stamps = [],
		grow,
		standing,
		carry = null,
		burn = null,
		exchange = null,
		bringIn = null
	}: {
		markup: Markup;
		codes: string[];
		/** The tools that there are, of all. */
		tools?: readonly Tool[];
		/** Heading of the layers; empty where there is but one. */
		layers?: string;
		/** The project's stamps, with day and name filled in. */
		stamps?: StampKind[];
		/** Says whether what was done is kept. */
		standing: Snippet;
		/** Draws what is chosen larger or smaller. */
		grow: (factor: number) => void;
		/** Brings marks of the version before over to this one; null when there are none. */
		carry?: { from: string; run: () => void } | null;
		/** Makes a copy with the marks burned in; null when no copy may leave. */
		burn?: { busy: boolean; run: () => void } | null;
		/** Takes the marks away as standard annotations, in a copy or by themselves; null where there are none. */
		exchange?: { busy: boolean; run: (as: 'pdf' | 'xfdf') => void } | null;
		/** Brings marks of a file in; null where a sheet has no annotations. */
		bringIn?: ((file: File) => void) | null;
	} = $props();

	const HINTS: Partial<Record<Tool, string>> = {
		polyline: 'Press point by point; Enter or a double press ends it.',
		area: 'Press corner by corner; Enter or a double press ends it.',
		count: 'Press each thing; Enter ends it.',
		dimension: 'Draw from end to end; ends and crossings of a drawing hold it.',
		scale: 'Draw over something whose length you know, then say how long it is.',
		callout: 'Draw from what it is about to where the words stand.'
	};
	const chosen = $derived(markup.changeable);
	const wordy = $derived(chosen.length > 0 && chosen.every((m) => WITH_WORDS.has(m.kind)));
	const needsWords = $derived(WITH_WORDS.has(markup.tool as MarkKind));
	/** Who drew what is chosen, where that was somebody else outside. */
	const outside = $derived(
		[...new Set([...markup.chosen].flatMap((id) => markup.marks.get(id)?.from ?? []))].filter(
			(name) => name !== markup.me.name
		)
	);
	const flagged = $derived([...markup.marks.values()].filter((m) => m.carried === 'changed').length);
</script>

<div
	class="flex flex-col gap-2 overflow-auto border-rule bg-sheet p-2 max-md:border-t md:h-full md:border-r"
	role="toolbar"
	aria-label="Marking up"
	aria-orientation="vertical"
>
	{@render standing()}
	{#if markup.mayDraw}
		<div class="flex shrink-0 gap-0.5 max-md:overflow-x-auto md:grid" role="radiogroup" aria-label="Tool">
			{#each tools as tool (tool)}<button
					role="radio"
					aria-checked={markup.tool === tool}
					class="rounded-sm px-2 py-0.5 text-left font-semibold max-md:shrink-0 max-md:border max-md:border-rule max-md:py-2 max-md:whitespace-nowrap {markup.tool ===
					tool
						? 'bg-act text-on-act'
						: 'hover:bg-act-soft'}"
					onclick={() => {
						markup.draft = null;
						markup.tool = tool;
					}}>{LABEL[tool]}</button
				>{/each}
		</div>
		{#if HINTS[markup.tool]}<p class="text-[12px] text-ink-2">{HINTS[markup.tool]}</p>{/if}
		{#if markup.tool === 'stamp'}<label class="block"
				><span class="label">Which stamp</span><Select
					choices={stamps.map((stamp) => ({ value: stamp.text, label: stamp.label }))}
					value={stamps.some((stamp) => stamp.text === markup.words) ? markup.words : ''}
					choose={(words) => (markup.words = words)}
					placeholder="choose"
				/></label
			>
		{:else if needsWords}<label class="block"
				><span class="label">The words</span><textarea
					class="field"
					maxlength="2000"
					bind:value={markup.words}></textarea></label
			>
			{#if !markup.words.trim()}<p class="text-[12px] text-ink-2">
					Write the words first, then place them.
				</p>{/if}{/if}
		<div class="flex flex-wrap gap-1">
			<button class="button" disabled={!markup.canUndo} onclick={() => markup.undo()}>Undo</button>
			<button class="button" disabled={!markup.canRedo} onclick={() => markup.redo()}>Redo</button>
		</div>
	{:else}<p class="text-ink-2">You look at the marks here; drawing needs Remark.</p>{/if}
	{#if outside.length}<p class="border-t border-rule pt-2 text-[12px] text-ink-2">
			Drawn by {outside.join('; ')}
		</p>{/if}
	{#if chosen.length}<div class="border-t border-rule pt-2">
			<p class="label max-md:hidden">{plural(chosen.length, 'mark')} chosen</p>
			{#if wordy}<textarea
					class="field mb-1"
					aria-label="Words of the chosen mark"
					maxlength="2000"
					value={chosen[0]!.text}
					onchange={(event) => markup.say(event.currentTarget.value)}></textarea>{/if}
			<div class="flex gap-1 max-md:overflow-x-auto max-md:*:shrink-0 md:flex-wrap">
				<button class="button" onclick={() => grow(1.25)}>Larger</button>
				<button class="button" onclick={() => grow(0.8)}>Smaller</button>
				<button class="button" onclick={() => markup.turnBy(15)}>Turn</button>
				<button class="button" onclick={() => markup.toFront()}>Bring to front</button>
				<button class="button" onclick={() => markup.toBack()}>Send to back</button>
				{#if chosen.length > 1}<button class="button" onclick={() => markup.group()}>Group</button>{/if}
				{#if chosen.some((m) => m.group)}<button class="button" onclick={() => markup.ungroup()}
						>Ungroup</button
					>{/if}
				{#if chosen.some((m) => m.carried === 'changed')}<button class="button" onclick={() => markup.fits()}
						>It still fits</button
					>{/if}
				<button class="button" onclick={() => markup.copy()}>Copy</button>
				<button class="button button-fault" onclick={() => markup.remove()}>Delete</button>
			</div>
		</div>{/if}
	<div class="flex flex-wrap gap-2 md:flex-col">
		{#if carry && markup.mayDraw}<button class="button" onclick={carry.run}
				>Carry over from {carry.from}</button
			>{/if}
		{#if burn}<button class="button" disabled={burn.busy} onclick={burn.run}
				>{burn.busy ? 'Making the copy…' : 'Copy with marks, PDF'}</button
			>{/if}
		{#if exchange}<button class="button" disabled={exchange.busy} onclick={() => exchange.run('pdf')}
				>PDF with annotations</button
			><button class="button" disabled={exchange.busy} onclick={() => exchange.run('xfdf')}
				>Marks as XFDF</button
			>{/if}
		{#if bringIn && markup.mayDraw}<label class="button cursor-pointer text-center focus-within:ring-2"
				>Bring marks in…<input
					class="sr-only"
					type="file"
					accept=".xfdf,.pdf,application/pdf"
					onchange={(event) => {
						const { currentTarget } = event;
						if (currentTarget.files?.[0]) bringIn(currentTarget.files[0]);
						currentTarget.value = '';
					}}
				/></label
			>{/if}
	</div>
	{#if flagged}<p class="border-l-4 border-fault bg-fault-soft px-2 py-1 text-[12px]">
			{plural(flagged, 'mark')} may not fit any more: the sheet changed under {flagged === 1 ? 'it' : 'them'}.
		</p>{/if}
	{#if layers}<div class="border-t border-rule pt-2">
			<MarkLayers {markup} {codes} legend={layers} nameOf={(layer) => layer || 'outside'} />
		</div>{/if}
</div>
