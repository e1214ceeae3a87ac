<script lang="ts">
	import { saveFile } from '../platform/save-file';
	import Papa from 'papaparse';
	import type { DrawingChange } from '../../core/compare/drawings';
	import { entityWord } from '../../core/dxf/kinds';
	import { CHANGE_WORD, changeWords } from './place-words';

	/** What changed in a drawing item by item, under the layers it lies on. */
	let {
		changes,
		names,
		current,
		show,
		fileName
	}: {
		changes: DrawingChange[];
		/** What the pages of the drawing are called. */
		names: string[] | null;
		current: number;
		show: (index: number) => unknown;
		fileName: string;
	} = $props();

	/** Under the page and the layer: pages are named when there are several. */
	const headingOf = (c: DrawingChange) =>
		names && names.length > 1 ? `${names[c.page - 1]} / ${c.layer}` : c.layer;
	const layers = $derived(
		[...new Set(changes.map(headingOf))].map((layer) => ({
			layer,
			items: changes.flatMap((change, index) => (headingOf(change) === layer ? [{ change, index }] : []))
		}))
	);
	const TONE = { added: 'text-act', removed: 'text-fault', moved: 'text-wait', edited: 'text-lock' };
	const SIGN = { added: '+', removed: '−', moved: '→', edited: '≠' };

	function exportCsv() {
		const text = Papa.unparse(
			changes.map((c, i) => ({
				no: i + 1,
				page: names?.[c.page - 1] ?? '',
				layer: c.layer,
				item: entityWord(c.type),
				change: CHANGE_WORD[c.kind],
				what: changeWords(c),
				left: c.box[0],
				bottom: c.box[1],
				right: c.box[2],
				top: c.box[3]
			})),
			{ escapeFormulae: true }
		);
		saveFile('\ufeff' + text, `${fileName}.csv`, 'text/csv');
	}
</script>

<div class="min-h-0 flex-1 overflow-auto">
	{#each layers as { layer, items } (layer)}
		<h3 class="sticky top-0 flex border-b border-rule bg-film px-3 py-1 font-mono text-[12px] font-semibold">
			{layer}<span class="ml-auto text-ink-2">{items.length}</span>
		</h3>
		<ol>
			{#each items as { change, index } (index)}
				<li class="border-b border-rule-2">
					<button
						class="flex w-full items-baseline gap-2 px-3 py-1 text-left hover:bg-film {index === current
							? 'bg-lock-soft'
							: ''}"
						aria-current={index === current}
						onclick={() => show(index)}
					>
						<span class="w-7 shrink-0 font-mono text-[12px] font-semibold">{index + 1}</span>
						<span class="min-w-0">
							<span class="font-semibold {TONE[change.kind]}"
								><span aria-hidden="true">{SIGN[change.kind]}</span> {CHANGE_WORD[change.kind]}</span
							>
							{entityWord(change.type)}
							{#each change.what as w (w.property)}<span class="block text-[12px] break-words text-ink-2"
									>{w.property}: <s class="decoration-fault">{w.before || '(none)'}</s>
									<b class="font-semibold text-ink">{w.after || '(none)'}</b></span
								>{/each}
						</span>
					</button>
				</li>
			{/each}
		</ol>
	{:else}<p class="p-3 text-ink-2">No item of the drawing differs.</p>{/each}
</div>
{#if changes.length}<p class="border-t border-rule p-2">
		<button class="button" onclick={exportCsv}>Export CSV</button>
	</p>{/if}
