<script lang="ts">
	import Select from '../kit/Select.svelte';
	import { onMount, tick } from 'svelte';
	import { toast } from '../kit/toast';
	import type { DrawingChange } from '../../core/compare/drawings';
	import { placingFrom, type ChangedPlace } from '../../core/compare/sheets';
	import type { SheetAnswer } from '../../workers/compare.worker';
	import { moves, prepare, ViewPort } from '../viewers/view-port.svelte';
	import { plural } from '../platform/words';
	import { compareDrawn } from './ask';
	import { cloudedPdf } from './clouded-pdf';
	import { drawDivided, drawFlags, drawMarks, drawPicture } from './draw-comparison';
	import DrawingChanges from './DrawingChanges.svelte';
	import { placeWords } from './place-words';
	import { saveFile } from '../platform/save-file';
	import { SheetPair, type RenderedPair, type Side } from './sheet-pair';

	/** Two sheets laid on each other: what was taken away and added, in colour, pattern and words. */
	let {
		before,
		after,
		heading,
		fileName,
		mayDownload,
		failed,
		total = $bindable(0),
		current = $bindable(-1)
	}: {
		before: Side & { label: string };
		after: Side & { label: string };
		heading: string;
		fileName: string;
		mayDownload: boolean;
		failed: (sentence: string) => void;
		/** How many places differ, and which of them is shown. */
		total: number;
		current: number;
	} = $props();

	type Way = 'together' | 'swipe' | 'blink' | 'beside' | 'mark';
	const WAYS: [Way, string][] = [
		['together', 'Overlay'],
		['swipe', 'Swipe'],
		['blink', 'Blink'],
		['beside', 'Side by side']
	];
	type Mark = [number, number];
	interface Shown {
		x: number;
		y: number;
		w: number;
		h: number;
		words: string;
		/** The page it is on, where that is not the one shown. */
		elsewhere: number | null;
	}

	const port = new ViewPort();
	let left = $state<HTMLCanvasElement>();
	let right = $state<HTMLCanvasElement>();
	let pair: SheetPair | null = null;
	let pages = $state(1);
	let page = $state(1);
	let rendered = $state.raw<RenderedPair | null>(null);
	let renderedPage = $state(1);
	let names = $state.raw<string[] | null>(null);
	let answer = $state.raw<SheetAnswer | null>(null);
	let changes = $state.raw<DrawingChange[] | null>(null);
	let list = $state<'places' | 'entities'>('places');
	let way = $state<Way>('together');
	let tolerance = $state<number | undefined>(undefined);
	let marks = $state<{ before: Mark[]; after: Mark[] }>({ before: [], after: [] });
	let byHand = $state(false);
	let divide = $state(0.5);
	let blinking = $state(false);
	let status = $state('opening both');
	const abort = new AbortController();

	const shown = $derived<Shown[]>(
		list === 'entities' && changes && rendered?.inPixels
			? changes.map((c) => ({
					...rendered!.inPixels!(c.box),
					words: c.kind,
					elsewhere: c.page === renderedPage ? null : c.page
				}))
			: (answer?.places ?? []).map((p: ChangedPlace) => ({ ...p, words: placeWords(p), elsewhere: null }))
	);
	$effect(() => {
		total = shown.length;
	});

	onMount(() => {
		void (async () => {
			try {
				pair = await SheetPair.open(before, after, abort.signal);
				({ pages, names } = pair);
				pair.changes?.then(
					(found) => (changes = found),
					(error: Error) => abort.signal.aborted || failed(error.message)
				);
				await compare();
			} catch (error) {
				if (!abort.signal.aborted) failed((error as Error).message);
			}
		})();
		return () => {
			abort.abort();
			pair?.close();
		};
	});

	async function compare() {
		if (!pair) return;
		status = 'drawing both';
		const asked = page;
		const both = await pair.render(asked);
		if (byHand) {
			both.after = placed(both);
			both.ink.after = null;
		}
		status = 'comparing';
		const options = { tolerance, ...(byHand ? { shift: { x: 0, y: 0 } } : {}) };
		const found = await compareDrawn(both, options, abort.signal);
		const first = rendered === null;
		rendered = both;
		renderedPage = asked;
		answer = found;
		current = -1;
		port.sheetWidth = Math.max(both.before.width, both.after.width);
		port.sheetHeight = Math.max(both.before.height, both.after.height);
		if (first) port.fit();
		status = [
			byHand
				? 'aligned by three points'
				: found.shift.x || found.shift.y
					? `the newer one was moved ${found.shift.x}, ${found.shift.y} pixels to lie on the other`
					: '',
			found.tolerance ? `differences of ${plural(found.tolerance, 'pixel')} are let pass` : ''
		]
			.filter(Boolean)
			.join('; ');
	}

	/** The newer sheet laid on the older by the three places marked on both. */
	function placed(both: RenderedPair): HTMLCanvasElement {
		const canvas = document.createElement('canvas');
		canvas.width = both.before.width;
		canvas.height = both.before.height;
		const context = canvas.getContext('2d', { willReadFrequently: true })!;
		context.fillStyle = '#fff';
		context.fillRect(0, 0, canvas.width, canvas.height);
		context.setTransform(...placingFrom(marks.after, marks.before));
		context.drawImage(both.after, 0, 0);
		return canvas;
	}

	async function again() {
		try {
			await compare();
		} catch (error) {
			if (!abort.signal.aborted) failed((error as Error).message);
		}
	}
	async function turnTo(n: number) {
		page = n;
		await again();
		port.fit();
	}

	async function mark(side: 'before' | 'after', event: MouseEvent) {
		if (way !== 'mark' || marks[side].length >= 3) return;
		const box = (event.currentTarget as HTMLElement).getBoundingClientRect();
		marks[side].push([
			(event.clientX - box.left - port.x) / port.scale,
			(event.clientY - box.top - port.y) / port.scale
		]);
		if (marks.before.length < 3 || marks.after.length < 3) return;
		try {
			placingFrom(marks.after, marks.before);
		} catch (error) {
			toast.error((error as Error).message);
			marks = { before: [], after: [] };
			return;
		}
		byHand = true;
		way = 'together';
		await again();
	}
	async function startMarking() {
		marks = { before: [], after: [] };
		if (byHand) {
			byHand = false;
			await again();
			return;
		}
		way = 'mark';
		await tick();
		requestAnimationFrame(() => port.fit());
	}

	/** Screen pixels for a pixel of the sheet at most: what is around a small change must stay in sight. */
	const CLOSEST = 1.2;

	/** Brings a place into the middle, close enough to see it and what is around it. */
	export async function show(index: number): Promise<void> {
		if (shown[index]?.elsewhere) await turnTo(shown[index].elsewhere);
		const target = shown[index];
		if (!target || target.elsewhere) return;
		current = index;
		const room = 0.35;
		const wanted = Math.min(
			CLOSEST,
			(port.width * room) / Math.max(target.w, 60),
			(port.height * room) / Math.max(target.h, 60)
		);
		port.zoom(wanted / port.scale);
		port.showBox(target.x, target.y, target.w, target.h);
	}

	$effect(() => {
		if (way !== 'blink') return;
		const timer = setInterval(() => (blinking = !blinking), 700);
		return () => clearInterval(timer);
	});

	$effect(() => {
		void [port.scale, port.x, port.y, port.width, port.height, rendered, answer, way, divide, blinking];
		void [shown, current, marks.before.length, marks.after.length];
		const frame = requestAnimationFrame(draw);
		return () => cancelAnimationFrame(frame);
	});

	const beside = $derived(way === 'beside' || way === 'mark');
	const sides = $derived<('before' | 'after')[]>(beside ? ['before', 'after'] : ['before']);

	function draw() {
		if (!rendered || !answer || !port.width) return;
		const { before, after } = rendered;
		if (beside) {
			paint(left, (c) => drawPicture(c, port, before), marks.before);
			paint(right, (c) => drawPicture(c, port, after), marks.after);
		} else
			paint(left, (context) => {
				if (way === 'together') drawPicture(context, port, answer!.together);
				else if (way === 'blink') drawPicture(context, port, blinking ? after : before);
				else drawDivided(context, port, before, after, divide);
			});
	}

	function paint(
		canvas: HTMLCanvasElement | undefined,
		sheet: (context: CanvasRenderingContext2D) => void,
		points: Mark[] = []
	) {
		if (!canvas) return;
		const { context, ratio } = prepare(canvas, port);
		context.setTransform(ratio, 0, 0, ratio, 0, 0);
		sheet(context);
		drawFlags(context, port, shown, current, (place) => place.elsewhere === null);
		drawMarks(context, port, points);
	}

	async function exportPdf() {
		if (!rendered || !answer) return;
		const original = pair?.after.bytes;
		const source =
			original && after.mediaType === 'application/pdf' && !byHand ? { bytes: original, page } : null;
		const bytes = await cloudedPdf(
			rendered.after,
			shown.filter((place) => place.elsewhere === null),
			`${heading}, ${names?.[page - 1] ?? `page ${page}`}`,
			source
		);
		saveFile(bytes, `${fileName}.pdf`, 'application/pdf');
	}
</script>

<div class="flex h-full min-h-0 max-md:flex-col">
	<div class="flex min-h-0 min-w-0 flex-1 flex-col">
		<div
			class="flex shrink-0 flex-wrap items-center gap-1.5 border-b border-rule bg-sheet px-3 py-1"
			role="toolbar"
			aria-label="Comparison"
		>
			<div class="flex" role="group" aria-label="How the two are shown">
				{#each WAYS as [key, word] (key)}<button
						class="button {way === key ? 'bg-frame text-on-frame' : ''}"
						aria-pressed={way === key}
						onclick={() => (way = key)}>{word}</button
					>{/each}
			</div>
			<button class="button" onclick={() => port.zoom(0.8)} aria-label="Zoom out">−</button>
			<button class="button" onclick={() => port.zoom(1.25)} aria-label="Zoom in">+</button>
			<button class="button" onclick={() => port.fit()}>Fit sheet</button>
			{#if pages > 1}
				<button class="button" aria-label="Page before" disabled={page === 1} onclick={() => turnTo(page - 1)}
					>◂</button
				>
				<span class="font-mono text-[12px]"
					>{names ? `${names[page - 1]} (${page} of ${pages})` : `${page} of ${pages}`}</span
				>
				<button
					class="button"
					aria-label="Next page"
					disabled={page === pages}
					onclick={() => turnTo(page + 1)}>▸</button
				>
			{/if}
			<label class="flex items-center gap-1 text-[12px]"
				>Tolerance <Select
					class="h-7 w-auto py-0"
					choices={[
						{ value: '', label: 'what fits' },
						...[0, 1, 2, 3].map((n) => ({ value: String(n), label: plural(n, 'pixel') }))
					]}
					value={String(tolerance ?? '')}
					choose={(pixels) => {
						tolerance = pixels === '' ? undefined : Number(pixels);
						void again();
					}}
				/></label
			>
			<button class="button" onclick={startMarking}
				>{byHand ? 'Lay on each other as found' : 'Align by three points…'}</button
			>
			{#if mayDownload}<button class="button" disabled={!answer} onclick={exportPdf}>PDF with clouds</button
				>{/if}
			{#if status}<span class="ml-auto text-[12px] text-ink-2" role="status">{status}</span>{/if}
		</div>
		{#if way === 'mark'}<p class="bg-wait-soft px-3 py-1">
				Click the same three places on both sheets, in the same order: {marks.before.length} of 3 on the left,
				{marks.after.length} of 3 on the right.
			</p>{/if}
		<div class="relative flex min-h-0 flex-1 gap-px bg-ink">
			{#each sides as side (side)}
				<!-- svelte-ignore a11y_no_noninteractive_tabindex, a11y_no_noninteractive_element_interactions, a11y_click_events_have_key_events -->
				<div
					class="relative min-w-0 flex-1 touch-none overflow-hidden bg-[#dbe3dd] {way === 'mark'
						? 'cursor-crosshair'
						: 'cursor-grab active:cursor-grabbing'}"
					role="img"
					aria-label="{heading}: {plural(total, 'place')} changed"
					tabindex="0"
					onclick={(e) => void mark(side, e)}
					{@attach moves(port)}
				>
					{#if side === 'before'}<canvas bind:this={left} class="absolute inset-0 h-full w-full"
						></canvas>{:else}<canvas bind:this={right} class="absolute inset-0 h-full w-full"></canvas>{/if}
					{#if beside || way === 'blink'}<span
							class="tag absolute bottom-2 left-2 bg-frame font-mono text-on-frame"
							>{beside
								? side === 'before'
									? before.label
									: after.label
								: blinking
									? after.label
									: before.label}</span
						>{/if}
				</div>
			{/each}
			{#if way === 'swipe'}
				<span class="tag pointer-events-none absolute bottom-2 left-2 bg-fault font-mono text-sheet"
					>{before.label}</span
				><span class="tag pointer-events-none absolute right-2 bottom-2 bg-act font-mono text-sheet"
					>{after.label}</span
				>
				<span class="pointer-events-none absolute inset-y-0 w-0.5 bg-plank" style:left="{divide * 100}%"
				></span>
				<input
					class="absolute inset-x-0 top-2 mx-6 accent-plank"
					type="range"
					min="0"
					max="1"
					step="0.002"
					aria-label="Where {before.label} ends and {after.label} begins"
					bind:value={divide}
				/>
			{/if}
		</div>
	</div>
	<aside
		class="flex w-[290px] shrink-0 flex-col border-l border-rule bg-sheet max-md:h-[34%] max-md:w-full max-md:border-t max-md:border-l-0"
	>
		<div class="flex border-b border-rule px-1" role="tablist" aria-label="Changes">
			{#each [['places', `Places ${answer?.places.length ?? ''}`], ...(changes ? [['entities', `Items ${changes.length}`]] : [])] as [key, word] (key)}
				<button
					role="tab"
					aria-selected={list === key}
					class="border-b-2 px-3 py-1.5 font-semibold {list === key
						? 'border-ink'
						: 'border-transparent text-ink-2'}"
					onclick={() => ((list = key as typeof list), (current = -1))}>{word}</button
				>
			{/each}
		</div>
		<p class="flex flex-wrap gap-x-4 border-b border-rule-2 px-3 py-1.5 text-[12px] text-ink-2">
			<span
				><span
					class="mr-1 inline-block h-3 w-5 border border-fault align-[-2px]"
					style="background: repeating-linear-gradient(135deg, #f2c2b8 0 2px, #fff 2px 5px)"
				></span>taken away</span
			>
			<span
				><span
					class="mr-1 inline-block h-3 w-5 border border-act align-[-2px]"
					style="background: radial-gradient(#7fb98a 1.2px, #fff 1.4px) 0 0 / 5px 5px"
				></span>added</span
			>
			<span><span class="mr-1 inline-block h-0.5 w-5 bg-[#7e828a] align-[3px]"></span>same</span>
		</p>
		{#if list === 'entities' && changes}
			<DrawingChanges {changes} {names} {current} {show} {fileName} />
		{:else if answer}
			<ol class="min-h-0 flex-1 overflow-auto">
				{#each shown as place, i (i)}
					<li class="border-b border-rule-2">
						<button
							class="flex w-full items-baseline gap-2 px-3 py-1 text-left hover:bg-film {i === current
								? 'bg-lock-soft'
								: ''}"
							aria-current={i === current}
							onclick={() => show(i)}
							><span class="w-7 shrink-0 font-mono text-[12px] font-semibold">{i + 1}</span
							>{place.words}</button
						>
					</li>
				{:else}<li class="p-3 text-ink-2">
						Nothing differs{answer.tolerance ? ` by more than ${plural(answer.tolerance, 'pixel')}` : ''}.
					</li>{/each}
			</ol>
		{/if}
	</aside>
</div>
