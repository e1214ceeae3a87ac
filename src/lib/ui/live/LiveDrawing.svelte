<script lang="ts">
	import { addressOf } from '../../client/cupboard';
	import Tabs from '../kit/Tabs.svelte';
	import { onMount } from 'svelte';
	import { toast } from '../kit/toast';
	import RemarksPanel from '../remarks/RemarksPanel.svelte';
	import { plural } from '../platform/words';
	import DrawingGround from './DrawingGround.svelte';
	import DrawingLayers from './DrawingLayers.svelte';
	import DrawingPanel from './DrawingPanel.svelte';
	import { LiveDrawingState } from './drawing.svelte';
	import LiveBar from './LiveBar.svelte';
	import type { LiveDocument } from './live-document';

	/** A drawing that several edit at once, each department on its layers: the sheet, what is chosen, and the remarks. */
	let {
		room,
		mode,
		me,
		document: id,
		number,
		code,
		versions,
		mayDownload,
		mayManage,
		departments,
		mine,
		remarks,
		more
	}: LiveDocument & {
		mayManage: boolean;
		departments: { id: string; code: string; name: string }[];
		/** Ids of one's own departments. */
		mine: readonly string[];
	} = $props();

	let drawing = $state.raw<LiveDrawingState | null>(null);
	let tab = $state('drawing');
	let beside = $state(false);

	onMount(() => {
		const file = (label: string) => addressOf('versionFile', { document: id, label });
		const open = new LiveDrawingState(room, me, file, mine, () => mode === 'write');
		drawing = open;
		return () => open.close();
	});
	const done = $derived((drawing?.edits.changes.size ?? 0) + (drawing?.edits.items.length ?? 0));
	function remarkOnChosen() {
		const thing = drawing?.things[0];
		if (!thing) return void toast('Choose something in the drawing first, then remark on it.');
		const [x, y] = LiveDrawingState.place(thing);
		remarks.begin(
			{ on: 'entity', entity: thing.key, x, y },
			`${thing.entity.type.toLowerCase()} on ${thing.layer}${LiveDrawingState.words(thing) ? `: ${LiveDrawingState.words(thing)}` : ''}`
		);
		tab = 'remarks';
	}
	/** What is chosen beside the drawing comes into view. */
	$effect(() => {
		const row = remarks.rows.find((r) => r.number === remarks.chosen);
		if (!drawing?.base || row?.anchor.on !== 'entity') return;
		if (drawing.find(row.anchor.entity)) drawing.choose(row.anchor.entity);
	});
</script>

<div class="flex h-full flex-col">
	<LiveBar
		line={drawing?.line ?? null}
		{me}
		{...mode === 'write' && drawing?.base ? { putIn: (held: Uint8Array) => drawing!.putIn(held) } : {}}
	>
		{#snippet mine()}
			{#if mode === 'write'}<span class="tag bg-done-soft text-done">You draw here</span>
			{:else}<span class="tag bg-rule-2">You look on here</span>{/if}
			<span class="font-mono text-[12px] text-ink-2">{plural(done, 'change')}</span>
		{/snippet}
		{#if mayDownload}<a class="button" download href={addressOf('liveFile', { document: id, format: 'dxf' })}
				>Export DXF</a
			>{/if}
		<button class="button lg:hidden" aria-expanded={beside} onclick={() => (beside = !beside)}
			>{beside ? 'Sheet' : 'Beside'}</button
		>
	</LiveBar>
	<div class="relative flex min-h-0 flex-1">
		<div class="min-w-0 flex-1">
			{#if drawing?.fault}<div class="grid h-full place-items-center">
					<p class="border border-ink bg-sheet p-6" role="alert">{drawing.fault}</p>
				</div>
			{:else if drawing}<DrawingGround
					{drawing}
					writes={mode === 'write'}
					title="Drawing {number}"
					label={versions[0]!.label}
					{remarks}
				/>{/if}
		</div>
		{#snippet drawingPanel()}{#if drawing?.base}<DrawingPanel
					{drawing}
					{departments}
					writes={mode === 'write'}
				/>{:else}<p class="text-ink-2" role="status">opening</p>{/if}{/snippet}
		{#snippet layersPanel()}{#if drawing}<DrawingLayers
					{drawing}
					{departments}
					document={id}
					{mayManage}
					writes={mode === 'write'}
				/>{/if}{/snippet}
		{#snippet remarksPanel()}<RemarksPanel
				{remarks}
				titled={false}
				table="/{code}/document/{id}/remarks"
				label={versions[0]!.label}
				newest
				gone={(row) =>
					row.anchor.on === 'entity' &&
					drawing !== null &&
					drawing.base !== null &&
					!drawing.find(row.anchor.entity)}
				compose={{ label: 'On what is chosen', run: remarkOnChosen }}
			/>{/snippet}
		<Tabs
			bind:value={tab}
			class="{beside
				? 'absolute inset-0 z-10 flex'
				: 'hidden'} shrink-0 border-l border-rule bg-film lg:static lg:flex lg:w-[290px]"
			tabs={[
				{
					value: 'drawing',
					word: drawing && drawing.chosen.size ? `Chosen ${drawing.chosen.size}` : 'Draw',
					panel: drawingPanel,
					class: 'p-3'
				},
				{ value: 'layers', word: `Layers ${drawing?.layers.length ?? 0}`, panel: layersPanel, class: 'p-3' },
				{ value: 'remarks', word: `Remarks ${remarks.open.length}`, panel: remarksPanel },
				...more
			]}
		/>
	</div>
</div>
