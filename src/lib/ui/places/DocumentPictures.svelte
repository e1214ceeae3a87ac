<script lang="ts">
	import { addressOf } from '../../client/cupboard';
	import { createVirtualizer } from '@tanstack/svelte-virtual';
	import { untrack } from 'svelte';
	import type { SvelteSet } from 'svelte/reactivity';
	import type { DocumentRow } from '../../core/documents/rows';
	import LockTag from '../locks/LockTag.svelte';
	import Revision from '../documents/Revision.svelte';
	import { kindWord } from '../../core/files/kinds';

	/** The documents of a folder by their pictures; what has none shows its kind. */
	let {
		rows,
		chosen,
		selection,
		choose,
		open
	}: {
		rows: DocumentRow[];
		chosen: string | null;
		selection: SvelteSet<string>;
		choose: (id: string | null) => void;
		open: (id: string) => void;
	} = $props();

	const WIDTH = 212;
	const HEIGHT = 214;
	let scroller = $state<HTMLDivElement>();
	let width = $state(0);
	const across = $derived(Math.max(1, Math.floor((width - 16) / WIDTH)));
	const virtual = createVirtualizer<HTMLDivElement, HTMLDivElement>({
		count: 0,
		getScrollElement: () => scroller ?? null,
		estimateSize: () => HEIGHT,
		overscan: 2
	});
	$effect(() => {
		const [count, element] = [Math.ceil(rows.length / across), scroller];
		untrack(() => $virtual.setOptions({ count, getScrollElement: () => element ?? null }));
	});

	function keys(event: KeyboardEvent) {
		const at = rows.findIndex((r) => r.id === chosen);
		const step = { ArrowRight: 1, ArrowLeft: -1, ArrowDown: across, ArrowUp: -across }[event.key];
		if (step) {
			const to = Math.max(0, Math.min(rows.length - 1, at < 0 ? 0 : at + step));
			choose(rows[to]!.id);
			$virtual.scrollToIndex(Math.floor(to / across));
		} else if (event.key === 'Enter' && chosen && event.target === scroller) open(chosen);
		else if (event.key === ' ' && chosen) tick(chosen);
		else return;
		event.preventDefault();
	}
	function tick(id: string) {
		if (!selection.delete(id)) selection.add(id);
	}
</script>

<!-- svelte-ignore a11y_no_noninteractive_tabindex, a11y_no_noninteractive_element_interactions -->
<div
	bind:this={scroller}
	bind:clientWidth={width}
	class="min-h-0 flex-1 overflow-auto bg-film px-2"
	tabindex="0"
	role="rowgroup"
	onkeydown={keys}
>
	<div class="relative" role="presentation" style:height="{$virtual.getTotalSize()}px">
		{#each $virtual.getVirtualItems() as line (line.key)}
			<div
				class="absolute inset-x-0 top-0 flex"
				role="row"
				aria-rowindex={line.index + 1}
				style:height="{HEIGHT}px"
				style:transform="translateY({line.start}px)"
			>
				{#each rows.slice(line.index * across, (line.index + 1) * across) as row (row.id)}
					<div
						role="gridcell"
						tabindex="-1"
						aria-selected={row.id === chosen}
						data-document={row.id}
						class="m-1 flex flex-col border bg-sheet {row.id === chosen
							? 'border-act outline-2 outline-act'
							: 'border-rule'}"
						style:width="{WIDTH - 8}px"
						onclick={() => choose(row.id)}
						ondblclick={() => open(row.id)}
						onkeydown={(e) => e.key === 'Enter' && open(row.id)}
					>
						<div class="grid h-[132px] place-items-center overflow-hidden border-b border-rule-2 bg-white">
							{#if row.preview === 'made'}<img
									src={addressOf('preview', { document: row.id, label: row.label })}
									alt=""
									loading="lazy"
									class="h-full w-full object-contain"
								/>{:else}<span class="text-[#55645d]">{kindWord(row.mediaType, row.fileName)}</span>{/if}
						</div>
						<div class="flex min-h-0 flex-1 flex-col gap-0.5 px-2 py-1">
							<div class="flex items-center gap-1.5">
								<input
									type="checkbox"
									class="accent-act"
									aria-label="Tick {row.number}"
									checked={selection.has(row.id)}
									onclick={(e) => e.stopPropagation()}
									onchange={() => tick(row.id)}
								/>
								<span class="min-w-0 flex-1 truncate font-mono text-[11px]" title={row.number}
									>{row.number}</span
								>
							</div>
							<p class="flex items-center gap-1.5">
								<span class="min-w-0 flex-1 truncate font-semibold" title={row.title}>{row.title}</span>
								<Revision label={row.label} issued={row.issued} />
							</p>
							{#if row.lock}<p class="truncate text-[12px]"><LockTag lock={row.lock} compact /></p>
							{:else if row.isNew}<p class="text-[12px] text-new">new to you</p>{/if}
						</div>
					</div>
				{/each}
			</div>
		{/each}
	</div>
</div>
