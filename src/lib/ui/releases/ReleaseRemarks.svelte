<script lang="ts">
	import { cupboard, type AnswerOf } from '../../client/cupboard';
	import Field from '../kit/Field.svelte';
	import Form from '../kit/Form.svelte';
	import { refreshAll } from '../platform/refresh';
	import { whenText } from '../platform/words';
	import type { PlacedRemarks } from '../remarks/placed.svelte';

	/** What was remarked on a document from within a release, and the next remark: on a place of its sheet, or on it as a whole. */
	let {
		release,
		document,
		rows,
		remarks,
		mayPlace,
		barred
	}: {
		release: string;
		document: string;
		rows: AnswerOf<'releaseContent'>['remarks'];
		remarks: PlacedRemarks;
		/** Whether what is shown has places on which a remark can stand. */
		mayPlace: boolean;
		/** Why nothing can be remarked now; empty where it can. */
		barred: string;
	} = $props();

	let text = $state('');
	async function send() {
		const place = remarks.draft?.anchor;
		await cupboard.remarkInRelease({
			release,
			document,
			text,
			...(place ? { at: { page: place.page, x: place.x, y: place.y } } : {})
		});
		remarks.draft = null;
		text = '';
		await refreshAll();
	}
	/** The list follows what was chosen on the sheet. */
	let list = $state<HTMLElement>();
	$effect(() => {
		const { chosen } = remarks;
		if (chosen !== null)
			list?.querySelector(`[data-remark="${chosen}"]`)?.scrollIntoView({ block: 'nearest' });
	});
</script>

<section aria-label="Remarks" class="space-y-3 px-4 py-3">
	<h2 class="text-[15px]">Remarks from this release</h2>
	<ol bind:this={list} class="space-y-1.5">
		{#each rows as one (one.id)}<li
				data-remark={one.number}
				class="border border-rule bg-sheet px-2.5 py-1.5 {remarks.chosen === one.number
					? 'ring-2 ring-plank'
					: ''}"
			>
				<p class="flex flex-wrap items-baseline gap-x-2 text-[12px] text-ink-2">
					{#if one.place}<button
							class="link font-mono font-semibold"
							onclick={() => (remarks.chosen = one.number)}>{one.number}, page {one.place.page}</button
						>{:else}<span class="font-mono font-semibold text-ink">{one.number}</span>{/if}
					{one.by}, {whenText(one.at)}
					{#if one.settled}<span class="tag bg-done-soft text-done">settled</span>{/if}
				</p>
				<p class="whitespace-pre-line">{one.text}</p>
			</li>{:else}<li class="text-ink-2">
				{barred
					? 'None.'
					: 'What you remark here stands on the document, for its department to settle before the release goes out.'}
			</li>{/each}
	</ol>
	{#if barred}<p class="text-ink-2">{barred}</p>
	{:else}<Form
			act={send}
			button="Remark"
			disabled={!text.trim()}
			cancel={remarks.draft ? () => (remarks.draft = null) : undefined}
			onPage
		>
			<Field
				label={remarks.draft
					? `What is to be said at this place, page ${remarks.draft.anchor.page}`
					: 'Remark on it as a whole'}
				name="text"
				lines={3}
				bind:value={text}
			/>
			{#snippet more()}{#if mayPlace}<button
						type="button"
						class="button"
						aria-pressed={remarks.picking}
						onclick={() => (remarks.picking = !remarks.picking)}
						>{remarks.picking
							? 'Press the place on the sheet…'
							: remarks.draft
								? 'Choose another place'
								: 'Choose its place'}</button
					>{/if}{/snippet}
		</Form>{/if}
</section>
