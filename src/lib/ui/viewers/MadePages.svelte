<script lang="ts">
	import { onMount } from 'svelte';
	import {
		findWords,
		MOST_SHOWN_PIXELS,
		type FoundPlace,
		type Shown,
		type ShownWord
	} from '../../core/files/shown';
	import type { Face } from './sheet-face';
	import SheetFrame from './SheetFrame.svelte';
	import { readPage, readWords } from './shown';
	import { Unreadable } from '../../formats/package/fault';
	import { prepare, ViewPort } from './view-port.svelte';
	import type { Snippet } from 'svelte';

	/** Shows pages that the server drew, for those who may look at a file and not take it. */
	let {
		url,
		title,
		shown,
		withheld,
		failed,
		layer
	}: {
		url: string;
		title: string;
		shown: Extract<Shown, { kind: 'pages' }>;
		/** The file itself is not given out. */
		withheld: boolean;
		failed: (sentence: string) => void;
		layer?: Snippet<[Face]>;
	} = $props();

	/** Widths in pixels at which pages are asked for, one after the other as one looks closer. */
	const STEPS = [1_600, 3_600, MOST_SHOWN_PIXELS];
	const drawing = $derived(shown.unit !== 'pt' && shown.unit !== 'px');
	const port = new ViewPort();
	const abort = new AbortController();
	let canvas = $state<HTMLCanvasElement>();
	let number = $state(1);
	let picture = $state.raw<HTMLImageElement | null>(null);
	let step = 0;
	let asking = $state(false);
	let query = $state('');
	let hits = $state.raw<(FoundPlace & { page: number })[]>([]);
	let hit = $state(-1);
	let looking = $state(false);
	let none = $state(false);
	const texts = new Map<number, ShownWord[]>();
	const page = $derived(shown.pages[number - 1]!);
	const [left, top] = $derived([page.left ?? 0, page.top ?? 0]);
	const face: Face = $derived({
		port,
		page: number,
		unit: shown.unit,
		lasting: (x, y) => (drawing ? { x: left + x, y: top - y } : { x, y }),
		inView: (x, y) => (drawing ? { x: x - left, y: top - y } : { x, y }),
		turnTo: (n) => void show(n)
	});

	onMount(() => {
		void show(1);
		return () => {
			abort.abort();
			if (picture) URL.revokeObjectURL(picture.src);
		};
	});

	async function show(n: number) {
		const next = shown.pages[n - 1];
		if (!next) return;
		const same = port.sheetWidth === next.width && port.sheetHeight === next.height && picture;
		number = n;
		port.sheetWidth = next.width;
		port.sheetHeight = next.height;
		picture = null;
		step = 0;
		if (!same) port.fit();
		await fetchPage(n, 0);
	}
	async function fetchPage(n: number, at: number) {
		asking = true;
		try {
			const image = await readPage(url, n, STEPS[at]!, abort.signal);
			if (n !== number) return URL.revokeObjectURL(image.src);
			if (picture) URL.revokeObjectURL(picture.src);
			[picture, step] = [image, at];
		} catch (error) {
			if (!abort.signal.aborted && !picture)
				failed(error instanceof Unreadable ? error.message : 'The page could not be fetched.');
		} finally {
			asking = false;
		}
	}
	// Looking closer than the picture is sharp asks for a larger one; a drawing comes as lines, sharp at every zoom.
	$effect(() => {
		const wide = port.scale * page.width * (window.devicePixelRatio || 1);
		if (drawing || !picture || asking || step >= STEPS.length - 1 || wide < picture.naturalWidth * 1.15)
			return;
		const least = STEPS.findIndex((w, i) => i > step && (w >= wide || i === STEPS.length - 1));
		void fetchPage(number, least);
	});
	$effect(() => {
		if (!canvas || !port.width) return;
		const { context, ratio } = prepare(canvas, port);
		context.setTransform(ratio, 0, 0, ratio, 0, 0);
		context.fillStyle = '#fff';
		const [width, height] = [port.sheetWidth * port.scale, port.sheetHeight * port.scale];
		context.fillRect(port.x, port.y, width, height);
		if (picture) context.drawImage(picture, port.x, port.y, width, height);
		hits.forEach((h, i) => {
			if (h.page !== number) return;
			context.fillStyle = i === hit ? 'rgba(184,110,0,.45)' : 'rgba(230,200,80,.4)';
			const { scale, x, y } = port;
			context.fillRect(x + h.x * scale, y + h.y * scale, h.w * scale, h.h * scale);
		});
	});

	async function search(event: SubmitEvent) {
		event.preventDefault();
		if (looking) return;
		if (hits.length) return to(hit + 1);
		looking = true;
		none = false;
		try {
			const found: typeof hits = [];
			for (let n = 1; n <= shown.pages.length && found.length < 500; n++) {
				const words = texts.get(n) ?? (await readWords(url, n, abort.signal));
				texts.set(n, words);
				found.push(...findWords(words, query).map((place) => ({ ...place, page: n })));
			}
			hits = found;
			none = !found.length;
			if (found.length) await to(0);
		} catch {
			none = true;
		} finally {
			looking = false;
		}
	}
	async function to(index: number) {
		hit = (index + hits.length) % hits.length;
		const place = hits[hit]!;
		if (place.page !== number) await show(place.page);
		port.x = port.width / 2 - (place.x + place.w / 2) * port.scale;
		port.y = port.height / 2 - (place.y + place.h / 2) * port.scale;
	}
	const status = $derived(
		picture
			? drawing
				? ['View only: layers and measuring need Download', page.note].filter(Boolean).join('; ')
				: withheld
					? 'View only: drawn by the server, the file stays there.'
					: ''
			: 'opening'
	);
</script>

{#snippet over()}{@render layer?.(face)}{/snippet}
<SheetFrame
	{port}
	bind:canvas
	label={shown.pages.length > 1 ? `${title}, page ${number} of ${shown.pages.length}` : title}
	{status}
	overlay={layer && picture ? over : undefined}
>
	{#snippet tools()}
		{#if shown.pages.length > 1}
			<span class="flex items-center gap-1.5">
				<button
					class="button"
					aria-label="Page before"
					disabled={number === 1}
					onclick={() => void show(number - 1)}>◂</button
				>
				<span class="font-mono text-[12px]"
					>{page.name
						? `${page.name} (${number} of ${shown.pages.length})`
						: `${number} of ${shown.pages.length}`}</span
				>
				<button
					class="button"
					aria-label="Next page"
					disabled={number === shown.pages.length}
					onclick={() => void show(number + 1)}>▸</button
				>
			</span>
		{/if}
		{#if shown.words}
			<form class="ml-2 flex items-center gap-1.5" onsubmit={search}>
				<input
					class="h-7 w-[130px] border border-rule bg-sheet px-2"
					type="search"
					placeholder="Words in this file"
					aria-label="Find words in this file"
					bind:value={query}
					oninput={() => ((hits = []), (hit = -1), (none = false))}
					required
					minlength="2"
				/>
				<button class="button" disabled={looking}>Find</button>
				{#if hits.length}<span class="text-[12px] text-ink-2">{hit + 1} of {hits.length}</span><button
						type="button"
						class="button"
						aria-label="Place before"
						onclick={() => void to(hit - 1)}>◂</button
					>{:else if none}<span class="text-[12px] text-ink-2">none</span>{/if}
			</form>
		{/if}
	{/snippet}
</SheetFrame>
