<script lang="ts">
	import { onMount, untrack } from 'svelte';
	import { readTitleBlock, type SheetArea } from '../../core/documents/title-block';
	import { addressOf, cupboard, type AnswerOf } from '../../client/cupboard';
	import Field from '../kit/Field.svelte';
	import Select from '../kit/Select.svelte';
	import { attempt } from '../platform/api';
	import { plural } from '../platform/words';
	import SettingsForm from './SettingsForm.svelte';

	/** Where the title block stands on PDF sheets: drawn on a sheet of the project, and tried on ten others at once. */
	let { project }: { project: AnswerOf<'projectFrame'>['project'] } = $props();
	const SIDES = ['left', 'top', 'right', 'bottom'] as const;
	/** In whole percent of the sheet, as it is written in the fields. */
	let block = $state(
		untrack(
			() =>
				Object.fromEntries(SIDES.map((side) => [side, Math.round(project.titleBlock[side] * 100)])) as Record<
					keyof SheetArea,
					number
				>
		)
	);
	const area = $derived(
		Object.fromEntries(SIDES.map((side) => [side, (block[side] || 0) / 100])) as unknown as SheetArea
	);
	const wrong = $derived(
		area.left < area.right && area.top < area.bottom ? '' : 'Left comes before right, and top before bottom.'
	);

	let sheets = $state.raw<AnswerOf<'titleBlocks'>['sheets'] | null>(null);
	let shown = $state('');
	onMount(() => {
		void attempt(async () => {
			({ sheets } = await cupboard.titleBlocks({ project: project.id }));
			shown = sheets[0]?.document ?? '';
		});
	});
	const sample = $derived(sheets?.find((one) => one.document === shown) ?? null);
	const tried = $derived(
		(sheets ?? []).map((sheet) => {
			const read = readTitleBlock(sheet.words, area, project.numbering, project.revisions);
			return { ...sheet, read, fits: read.number === sheet.number && read.revision !== null };
		})
	);
	const fitting = $derived(tried.filter((one) => one.fits).length);

	let frame = $state<HTMLElement>();
	let from: { x: number; y: number } | null = null;
	/** A place on the sheet in whole percent. */
	function at(event: PointerEvent) {
		const { left, top, width, height } = frame!.getBoundingClientRect();
		const within = (share: number) => Math.round(Math.min(1, Math.max(0, share)) * 100);
		return { x: within((event.clientX - left) / width), y: within((event.clientY - top) / height) };
	}
	function draw(event: PointerEvent) {
		if (!from) return;
		const to = at(event);
		block = {
			left: Math.min(from.x, to.x),
			right: Math.max(from.x, to.x),
			top: Math.min(from.y, to.y),
			bottom: Math.max(from.y, to.y)
		};
	}
	function begin(event: PointerEvent) {
		event.preventDefault();
		from = at(event);
		frame!.setPointerCapture(event.pointerId);
	}
	/** A press without a drag draws nothing. */
	function end(event: PointerEvent) {
		const to = at(event);
		if (from && Math.abs(to.x - from.x) > 1 && Math.abs(to.y - from.y) > 1) draw(event);
		from = null;
	}
</script>

<SettingsForm
	project={project.id}
	title="Place of the title block on PDF sheets"
	button="Change the place"
	change={{ titleBlock: area }}
	{wrong}
>
	<p class="text-[12px] text-ink-2">
		Number and revision are read there before a release goes out. Draw it on a sheet with the mouse, or write
		it in percent of the sheet from its upper left corner.
	</p>
	{#if sheets?.length === 0}<p class="text-ink-2">
			No PDF sheet of the project says its own number yet. The first that does can be drawn on here.
		</p>{/if}
	{#if sample}
		<Select
			label="Sheet to draw on"
			choices={tried.map((one) => ({ value: one.document, label: `${one.number} ${one.title}` }))}
			bind:value={shown}
		/>
		<!-- The fields below say the same for those who use no pointer. -->
		<div
			bind:this={frame}
			role="presentation"
			class="relative cursor-crosshair touch-none border border-ink select-none"
			onpointerdown={begin}
			onpointermove={draw}
			onpointerup={end}
			onpointercancel={() => (from = null)}
		>
			<img
				src={addressOf('preview', { document: sample.document, label: sample.label })}
				alt="First page of {sample.number}"
				class="block w-full bg-white"
				draggable="false"
			/>
			{#if !wrong}<div
					class="pointer-events-none absolute border-2 border-act bg-act/15"
					style="left:{block.left}%; top:{block.top}%; width:{block.right -
						block.left}%; height:{block.bottom - block.top}%"
				></div>{/if}
		</div>
	{/if}
	<div class="grid grid-cols-4 gap-3">
		{#each SIDES as side (side)}<Field
				label={side}
				name={side}
				bind:value={block[side]}
				type="number"
				min={0}
				max={100}
				mono
			/>{/each}
	</div>
	{#if tried.length}
		<p class="font-semibold" role="status">
			{fitting} of {plural(tried.length, 'sheet')}
			{fitting === 1 ? 'says' : 'say'} there what the project knows
		</p>
		<table class="w-full text-[12px]">
			<thead class="text-left text-ink-2"
				><tr
					><th class="py-0.5 font-normal">Document</th><th class="font-normal">Number read</th><th
						class="font-normal">Revision read</th
					></tr
				></thead
			>
			<tbody>
				{#each tried as one (one.document)}<tr class="border-t border-rule-2"
						><td class="py-0.5 font-mono">{one.number}</td><td
							class="font-mono {one.read.number === one.number ? 'text-done' : 'text-fault'}"
							>{one.read.number ?? 'nothing'}</td
						><td class="font-mono {one.read.revision ? '' : 'text-fault'}"
							>{one.read.revision ?? 'nothing'}</td
						></tr
					>{/each}
			</tbody>
		</table>
	{/if}
</SettingsForm>
