<script lang="ts">
	import { toast } from '../kit/toast';
	import { addressOf, cupboard } from '../../client/cupboard';
	import { attempt } from '../platform/api';
	import type { DocumentView } from './document-view';
	import type { SideRow } from '../../core/documents/rows';
	import MergeDialog from './MergeDialog.svelte';
	import ReasonDialog from '../kit/ReasonDialog.svelte';
	import { whenText } from '../platform/words';

	/** What was handed in beside the line, each to look at, compare, merge or drop. */
	let { view, code, changed }: { view: DocumentView; code: string; changed: () => void } = $props();
	const row = $derived(view.row);
	let discarding = $state<number | null>(null);
	let merging = $state<SideRow | null>(null);
	/** Both are plain text, so that they can be merged word by word. */
	const isText = (side: SideRow) =>
		side.mediaType.startsWith('text/') && row.mediaType.startsWith('text/') && side.hash !== row.hash;

	async function merge(side: number) {
		const made = await attempt(() => cupboard.mergeSide({ document: row.id, side }));
		if (!made) return;
		toast.success(`Side version ${side} is now ${made.label}; you still have it in hand.`);
		changed();
	}
	async function discard(reason: string) {
		await cupboard.discardSide({ document: row.id, side: discarding, reason });
		changed();
	}
	const open = $derived(view.sides.filter((s) => s.state === 'open'));
	const decided = $derived(view.sides.filter((s) => s.state !== 'open'));
</script>

{#if view.sides.length}
	<ul class="border-b border-rule" aria-label="Side versions">
		{#each [...open, ...decided] as side (side.number)}
			<li
				class="flex flex-wrap items-baseline gap-x-3 gap-y-0.5 border-b border-rule-2 px-2.5 py-1 {side.state ===
				'open'
					? 'bg-wait-soft'
					: 'text-ink-2'}"
			>
				<b class="font-mono text-[12px] font-semibold">side {side.number}</b>
				<span>{side.by}, {whenText(side.at)}{side.base ? `, made from ${side.base}` : ''}</span>
				<span class="min-w-0 flex-1 truncate" title={side.note}>{side.note}</span>
				{#if side.state !== 'open'}<span class="text-[12px]"
						>{side.state} by {side.decidedBy}{side.reason ? `: ${side.reason}` : ''}</span
					>{/if}
				<span class="ml-auto flex gap-2 text-[12px] whitespace-nowrap">
					<a class="link" href="/{code}/document/{row.id}?side={side.number}">Open</a>
					<a class="link" href="/{code}/document/{row.id}/compare?from={row.label}&side={side.number}"
						>Compare</a
					>
					{#if view.can.downloadDocument.may}<a
							class="link"
							download
							href={addressOf('sideFile', { document: row.id, side: side.number, download: '' })}>Download</a
						>{/if}
					{#if side.state === 'open'}
						{#if view.can.mergeSide.may}{#if isText(side)}<button
									class="link"
									onclick={() => (merging = side)}>Merge…</button
								>{/if}<button class="link" onclick={() => merge(side.number)}>Make next version</button>{/if}
						{#if view.can.discardSide.may}<button class="link" onclick={() => (discarding = side.number)}
								>Discard…</button
							>{/if}
					{/if}
				</span>
			</li>
		{/each}
	</ul>
{/if}
{#if discarding !== null}<ReasonDialog
		bind:open={() => discarding !== null, (open) => !open && (discarding = null)}
		title="Discard side version {discarding}?"
		consequence="It stays in the history with its content, and whoever handed it in is told why."
		button="Discard"
		act={discard}
	/>{/if}
{#if merging}<MergeDialog
		bind:side={merging}
		document={row.id}
		newest={{ label: row.label, fileName: row.fileName }}
		project={code.toUpperCase()}
		done={changed}
	/>{/if}
