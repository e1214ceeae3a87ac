<script lang="ts">
	import { cupboard } from '$lib/client/cupboard';
	import { isSheetKind } from '$lib/core/files/kinds';
	import { drawnOf } from '$lib/core/releases/drawn';
	import Revision from '$lib/ui/documents/Revision.svelte';
	import { untrack } from 'svelte';
	import { followPass } from '$lib/ui/passes/line';
	import { KeptOnSheet } from '$lib/ui/markup/kept-on-sheet.svelte';
	import MarkupLayer from '$lib/ui/markup/MarkupLayer.svelte';
	import PassAnswer from '$lib/ui/passes/PassAnswer.svelte';
	import SentSince from '$lib/ui/passes/SentSince.svelte';
	import PassDrawing from '$lib/ui/passes/PassDrawing.svelte';
	import { PlacedRemarks } from '$lib/ui/remarks/placed.svelte';
	import SheetRemarks from '$lib/ui/remarks/SheetRemarks.svelte';
	import type { Face } from '$lib/ui/viewers/sheet-face';
	import Viewer from '$lib/ui/viewers/Viewer.svelte';
	import { dayText } from '$lib/ui/platform/words';

	let { data } = $props();
	untrack(() => followPass(data.secret, data.line.readAt, data.line.endsAt));
	const item = $derived(data.item);
	/** Of a release on which a verdict is asked. */
	const asked = $derived(data.asked);
	const remarks = new PlacedRemarks(() => ({
		label: data.asked!.item.label,
		rows: data.asked!.item.placed.map(({ id, number, page, x, y }) => ({
			...{ id, number, by: data.asked!.by, settled: false },
			place: { page, x, y }
		}))
	}));
	/** The layer of who answers, in a look of its own. */
	const CODES = [''];
	let drawing = $state(false);
	let layer = $state<ReturnType<typeof MarkupLayer>>();
	const onSheet = $derived(asked !== null && isSheetKind(item.mediaType));
	const mayDraw = $derived(onSheet && asked!.mayDraw && !asked!.item.signed);
	const secret = untrack(() => data.secret);
	const drawn = new KeptOnSheet(
		() => {
			if (!onSheet || !(drawing || asked!.marks.length)) return null;
			const document = item.id;
			return {
				key: `${document} ${mayDraw}`,
				me: { id: 'me', name: asked!.by },
				keep: mayDraw
					? ({ drawn, gone }) =>
							cupboard.drawMarks({
								secret,
								document,
								drawn: drawn.flatMap((mark) => drawnOf(mark) ?? []),
								gone
							})
					: null
			};
		},
		() => asked?.marks ?? []
	);
	/** One press on the sheet is for one thing. */
	function draw(to: boolean) {
		drawing = to;
		if (to) [remarks.picking, remarks.draft] = [false, null];
		else drawn.markup?.chosen.clear();
	}
	$effect(() => {
		const { markup } = drawn;
		if (drawing && markup) untrack(() => (markup.tool = 'cloud'));
	});
	$effect(() => {
		if (remarks.picking || !mayDraw) drawing = false;
	});
	const file = $derived(`/pass/${data.secret}/file/${item.id}`);
</script>

<svelte:head><title>{item.number} {item.label}</title><meta name="robots" content="noindex" /></svelte:head>
<div class="flex h-screen flex-col">
	<header class="flex flex-wrap items-center gap-x-3 gap-y-1 bg-frame px-5 py-2.5 text-on-frame">
		<a class="link" href="/pass/{data.secret}{data.folder ? `?folder=${data.folder}` : ''}">{data.back}</a>
		<span class="font-mono">{item.number}</span><b>{item.title}</b><Revision
			label={item.label}
			issued={item.issued}
		/>
		{#if item.before}<a class="link" href="/pass/{data.secret}/compare/{item.id}"
				>Compare with {item.before.label}</a
			>{/if}
		{#if item.takeable}<a class="link ml-auto" href="{file}?download" download>Download</a>
		{:else}<span class="ml-auto text-[#c4d3cc]">view only</span>{/if}
	</header>
	{#if item.later}<p role="alert" class="bg-fault-soft px-5 py-1.5 font-semibold text-fault">
			Superseded by {item.later.label} on {dayText(item.later.at)}<SentSince
				since={item.since}
				newest={item.later.label}
			/>. Do not build from this sheet.
		</p>{/if}
	<div class="flex min-h-0 flex-1 max-lg:flex-col">
		<div class="flex min-h-0 min-w-0 flex-1 max-md:flex-col">
			{#if drawing && drawn.markup}<div
					class="shrink-0 max-md:order-last max-md:max-h-[45%] max-md:overflow-auto md:w-[190px]"
				>
					<PassDrawing
						line={drawn.line!}
						markup={drawn.markup}
						codes={CODES}
						grow={(factor) => layer?.growBy(factor)}
						done={() => draw(false)}
					/>
				</div>{/if}
			<div class="min-h-0 min-w-0 flex-1">
				<Viewer
					layer={asked ? over : undefined}
					file={item.made ? null : file}
					made="{file}/shown"
					download={item.takeable ? `${file}?download` : null}
					title="{item.number} {item.title}"
					mediaType={item.mediaType}
					fileName="{item.number} {item.label}"
					size={item.size}
				/>
			</div>
		</div>
		{#if asked}<aside
				class="overflow-auto border-rule bg-film max-lg:max-h-[48vh] max-lg:border-t lg:w-[340px] lg:border-l {drawing
					? 'max-lg:hidden'
					: ''}"
			>
				<PassAnswer
					secret={data.secret}
					item={asked.item}
					{remarks}
					mayPlace={onSheet}
					drawn={drawn.markup?.marks.size ?? asked.marks.length}
					draw={mayDraw ? { on: drawing, turn: draw } : null}
				/>
			</aside>{/if}
	</div>
</div>

{#snippet over(face: Face)}{#if drawn.markup}<MarkupLayer
			bind:this={layer}
			{face}
			markup={drawn.markup}
			codes={CODES}
			editing={drawing}
		/>{/if}<SheetRemarks {face} {remarks} label={item.label} />{/snippet}
