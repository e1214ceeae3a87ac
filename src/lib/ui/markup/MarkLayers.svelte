<script lang="ts">
	import { dashOf, lookOf } from '../../core/markup/look';
	import type { Markup } from './markup.svelte';

	/** Which layers of marks are shown, with the look of each. */
	let {
		markup,
		codes,
		legend,
		nameOf
	}: {
		markup: Markup;
		/** Codes of the layers that have a look of their own, in their order. */
		codes: string[];
		legend: string;
		/** What a layer is called. */
		nameOf: (layer: string) => string;
	} = $props();
</script>

<fieldset>
	<legend class="label">{legend}</legend>
	{#each markup.layers as layer (layer)}
		{@const look = lookOf(layer, codes)}
		<label class="flex items-center gap-2 py-0.5"
			><input
				type="checkbox"
				class="accent-act"
				checked={!markup.hidden.has(layer)}
				onchange={(event) =>
					event.currentTarget.checked ? markup.hidden.delete(layer) : markup.hidden.add(layer)}
			/><svg width="34" height="6" class="shrink-0" aria-hidden="true"
				><line
					x1="0"
					y1="3"
					x2="34"
					y2="3"
					stroke={look.colour}
					stroke-width="2"
					stroke-dasharray={dashOf(look, 2)}
				/></svg
			><span class="text-[12px]">{nameOf(layer)}</span></label
		>{:else}<p class="text-[12px] text-ink-2">No marks yet.</p>{/each}
</fieldset>
