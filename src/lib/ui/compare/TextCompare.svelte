<script lang="ts">
	import { onMount } from 'svelte';
	import type { ComparedBlock } from '../../core/compare/texts';
	import { paragraphsOf } from '../viewers/read-office';
	import { textToShow } from '../viewers/shown';
	import { compareInWorker } from './ask';
	import type { Side } from './sheet-pair';

	/** Two texts in one flow: words taken away struck through, words added underlined, moved paragraphs named. */
	let {
		before,
		after,
		failed,
		total = $bindable(0),
		current = $bindable(-1)
	}: {
		before: Side;
		after: Side;
		failed: (sentence: string) => void;
		total: number;
		current: number;
	} = $props();

	let blocks = $state.raw<ComparedBlock[] | null>(null);
	let all = $state(true);
	let ground = $state<HTMLElement>();
	/** Paragraphs kept around a change when the unchanged ones are left out. */
	const AROUND = 1;

	const paragraphs = async (side: Side, signal: AbortSignal) => paragraphsOf(await textToShow(side, signal));
	onMount(() => {
		const abort = new AbortController();
		void (async () => {
			try {
				const [a, b] = await Promise.all([paragraphs(before, abort.signal), paragraphs(after, abort.signal)]);
				blocks = await compareInWorker('texts', { before: a, after: b }, { signal: abort.signal });
				total = blocks.filter((block) => block.change !== null).length;
			} catch (error) {
				if (!abort.signal.aborted) failed((error as Error).message);
			}
		})();
		return () => abort.abort();
	});

	const shown = $derived(
		(blocks ?? []).filter(
			(_, i, list) =>
				all || list.slice(Math.max(0, i - AROUND), i + AROUND + 1).some((near) => near.kind !== 'same')
		)
	);
	const MARGIN: Record<ComparedBlock['kind'], string> = {
		same: '',
		added: 'added',
		removed: 'taken away',
		changed: 'changed',
		'moved-from': 'moved away from here',
		'moved-to': 'moved here'
	};
	const LOOK: Record<ComparedBlock['kind'], string> = {
		same: 'border-transparent',
		added: 'border-act',
		removed: 'border-fault border-dashed',
		changed: 'border-lock',
		'moved-from': 'border-wait border-dashed text-ink-2',
		'moved-to': 'border-wait'
	};

	/** Brings a change into view. */
	export function show(index: number) {
		current = index;
		ground?.querySelector(`[data-change="${index + 1}"]`)?.scrollIntoView({ block: 'center' });
	}
</script>

<div class="flex h-full flex-col">
	<div class="flex shrink-0 items-center gap-4 border-b border-rule bg-sheet px-3 py-1.5 text-[12px]">
		<label class="flex items-center gap-1.5"
			><input type="checkbox" class="accent-act" bind:checked={all} />with what did not change</label
		>
		<span><s class="bg-fault-soft decoration-fault">taken away</s></span>
		<span><u class="bg-done-soft decoration-act decoration-2">added</u></span>
	</div>
	<div class="min-h-0 flex-1 overflow-auto p-6" bind:this={ground}>
		{#if blocks === null}<p class="text-ink-2" role="status">comparing</p>
		{:else}
			<div class="mx-auto max-w-[96ch] border border-rule bg-sheet py-6 pr-8 leading-relaxed">
				{#if !total}<p class="px-8 text-ink-2">Not a word differs.</p>{/if}
				{#each shown as block, i (i)}
					<div class="flex" data-change={block.change}>
						<span class="w-[120px] shrink-0 pr-3 text-right text-[11.5px] text-ink-2"
							>{#if block.change}<b class="mr-1 font-mono text-ink">{block.change}</b>{/if}{MARGIN[
								block.kind
							]}</span
						>
						<p
							class="mb-1.5 min-w-0 flex-1 border-l-[3px] pl-3 {LOOK[block.kind]} {block.change ===
							current + 1
								? 'bg-lock-soft'
								: ''}"
						>
							{#each block.runs as run, n (n)}{#if run.kind === 'removed'}<s
										class="bg-fault-soft decoration-fault">{run.text}</s
									>{:else if run.kind === 'added'}<u class="bg-done-soft decoration-act decoration-2"
										>{run.text}</u
									>{:else}{run.text}{/if}{/each}
						</p>
					</div>
				{/each}
			</div>
		{/if}
	</div>
</div>
