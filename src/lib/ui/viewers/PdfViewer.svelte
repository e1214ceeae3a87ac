<script lang="ts">
	import { inField } from '../platform/in-field';
	import { onMount } from 'svelte';
	import type { PDFDocumentProxy, PDFPageProxy, RenderTask } from 'pdfjs-dist';
	import { pdfFault, showPdf } from './pdf';
	import { findInPage, type Hit, type PageText } from './pdf-find';
	import PdfPages from './PdfPages.svelte';
	import PdfWords from './PdfWords.svelte';
	import { asSeen, type Face, type SheetViewer } from './sheet-face';
	import SheetFrame from './SheetFrame.svelte';
	import { prepare, ViewPort } from './view-port.svelte';

	/** Shows a PDF one page at a time, drawn for the part on screen only, so that every zoom is sharp. */
	let { url, title, failed, layer }: SheetViewer = $props();

	const port = new ViewPort();
	let canvas = $state<HTMLCanvasElement>();
	let pages = $state(0);
	let number = $state(1);
	let page = $state.raw<PDFPageProxy | null>(null);
	let pdf = $state.raw<PDFDocumentProxy | null>(null);
	/** Degrees that pages are turned by, on top of their own. */
	let turn = $state(0);
	let showPages = $state(false);
	let selecting = $state(false);
	const rotationOf = (of: PDFPageProxy) => (of.rotate + turn) % 360;
	/** What lies over the page, unless it is turned from how everybody sees it. */
	const face: Face = $derived({ port, page: number, unit: 'pt', ...asSeen, turnTo: (n) => void show(n) });
	let progress = $state('opening');
	let attachmentsLocked = $state(false);
	const status = $derived(
		progress ||
			[
				layer && turn ? 'Marks and remarks show on the sheet as it came.' : '',
				attachmentsLocked ? 'What is attached to this PDF is locked with a password.' : ''
			]
				.filter(Boolean)
				.join(' ')
	);
	let query = $state('');
	let hits = $state.raw<Hit[]>([]);
	let hit = $state(-1);
	let looking = $state(false);
	const texts = new Map<number, PageText>();
	/** What was drawn last and where, shown moved and scaled until the sharp one is ready. */
	let drawn: { bitmap: ImageBitmap; scale: number; x: number; y: number; ratio: number } | null = null;
	let task: RenderTask | null = null;

	onMount(() => {
		const abort = new AbortController();
		void (async () => {
			try {
				const shown = await showPdf(url, (percent) => (progress = `${percent} %`), abort.signal);
				({ pdf, attachmentsLocked } = shown);
				pages = pdf.numPages;
				await show(1);
			} catch (error) {
				if (!abort.signal.aborted) failed(pdfFault(error));
			} finally {
				progress = '';
			}
		})();
		return () => {
			task?.cancel();
			abort.abort();
		};
	});

	async function show(n: number) {
		if (!pdf || n < 1 || n > pages) return;
		const next = await pdf.getPage(n);
		const { width, height } = next.getViewport({ scale: 1, rotation: rotationOf(next) });
		const same = page && port.sheetWidth === width && port.sheetHeight === height;
		port.sheetWidth = width;
		port.sheetHeight = height;
		drawn = null;
		number = n;
		page = next;
		if (!same) port.fit();
	}

	function turnPages() {
		turn = (turn + 90) % 360;
		// Places that were found lie elsewhere on a turned page.
		[hits, hit] = [[], -1];
		texts.clear();
		void show(number);
	}

	let timer: ReturnType<typeof setTimeout> | undefined;
	$effect(() => {
		void [page, port.scale, port.x, port.y, port.width, port.height, hits, hit];
		if (!canvas || !page || !port.width) return;
		paint();
		clearTimeout(timer);
		timer = setTimeout(() => void sharpen(), drawn ? 110 : 0);
	});

	function paint() {
		const { context, ratio } = prepare(canvas!, port);
		context.setTransform(ratio, 0, 0, ratio, 0, 0);
		context.fillStyle = '#fff';
		context.shadowColor = 'rgba(0,0,0,.25)';
		context.shadowBlur = 8;
		context.fillRect(port.x, port.y, port.sheetWidth * port.scale, port.sheetHeight * port.scale);
		context.shadowColor = 'transparent';
		if (drawn) {
			const k = port.scale / drawn.scale;
			// The bitmap is as large as the screen; only the page itself is shown of it.
			context.save();
			context.beginPath();
			context.rect(port.x, port.y, port.sheetWidth * port.scale, port.sheetHeight * port.scale);
			context.clip();
			context.drawImage(
				drawn.bitmap,
				port.x - drawn.x * k,
				port.y - drawn.y * k,
				(drawn.bitmap.width / drawn.ratio) * k,
				(drawn.bitmap.height / drawn.ratio) * k
			);
			context.restore();
		}
		hits.forEach((h, i) => {
			if (h.page !== number) return;
			context.fillStyle = i === hit ? 'rgba(184,110,0,.45)' : 'rgba(230,200,80,.4)';
			context.fillRect(
				port.x + h.x * port.scale,
				port.y + h.y * port.scale,
				h.w * port.scale,
				h.h * port.scale
			);
		});
	}

	async function sharpen() {
		const current = page;
		if (!current || !port.width) return;
		task?.cancel();
		const ratio = window.devicePixelRatio || 1;
		const { scale, x, y } = port;
		const buffer = document.createElement('canvas');
		buffer.width = Math.round(port.width * ratio);
		buffer.height = Math.round(port.height * ratio);
		const viewport = current.getViewport({
			scale: scale * ratio,
			rotation: rotationOf(current),
			offsetX: x * ratio,
			offsetY: y * ratio
		});
		task = current.render({ canvas: buffer, viewport, background: '#fff' });
		try {
			await task.promise;
			const bitmap = await createImageBitmap(buffer);
			if (page !== current) return;
			drawn?.bitmap.close();
			drawn = { bitmap, scale, x, y, ratio };
			paint();
		} catch (error) {
			if ((error as Error).name !== 'RenderingCancelledException') failed('This page cannot be drawn.');
		}
	}

	async function search(event: SubmitEvent) {
		event.preventDefault();
		if (!pdf || looking) return;
		if (hits.length && hits[0]!.query === query) return step(1);
		looking = true;
		const found: Hit[] = [];
		try {
			for (let n = 1; n <= pages && found.length < 500; n++) {
				found.push(...findInPage(await textOf(pdf, n), query, n));
				if (n % 25 === 0) progress = `looking on page ${n}`;
			}
		} finally {
			progress = '';
			looking = false;
		}
		hits = found;
		hit = -1;
		if (found.length) await step(1);
	}
	/** The words of a page as it is turned; none where it cannot be read. */
	async function textOf(pdf: PDFDocumentProxy, n: number): Promise<PageText> {
		const known = texts.get(n);
		if (known) return known;
		const one = await pdf.getPage(n);
		const { items } = await one.getTextContent().catch(() => ({ items: [] }));
		const text = { items, viewport: one.getViewport({ scale: 1, rotation: rotationOf(one) }) };
		texts.set(n, text);
		return text;
	}
	async function step(by: number) {
		if (!hits.length) return;
		hit = (hit + by + hits.length) % hits.length;
		const target = hits[hit]!;
		if (target.page !== number) await show(target.page);
		port.showBox(target.x, target.y, target.w, target.h);
	}
	function keys(event: KeyboardEvent) {
		if (inField(event)) return;
		if (event.key === 'PageDown') void show(number + 1);
		else if (event.key === 'PageUp') void show(number - 1);
	}
</script>

<svelte:window onkeydown={keys} />
{#snippet over()}
	{#if page && turn === 0}{@render layer?.(face)}{/if}
	{#if page && selecting}<PdfWords {page} {port} rotation={rotationOf(page)} />{/if}
{/snippet}
<div class="flex h-full">
	{#if showPages && pdf}<PdfPages {pdf} {pages} current={number} {turn} show={(n) => void show(n)} />{/if}
	<div class="min-w-0 flex-1">
		<SheetFrame
			{port}
			bind:canvas
			label="{title}, page {number} of {pages}"
			{status}
			overlay={selecting || layer ? over : undefined}
		>
			{#snippet tools()}
				<button class="button" onclick={turnPages}>Turn the sheet</button>
				<button class="button" aria-pressed={selecting} onclick={() => (selecting = !selecting)}
					>{selecting ? 'Move the sheet' : 'Select words'}</button
				>
				{#if pages > 1}
					<button class="button" aria-expanded={showPages} onclick={() => (showPages = !showPages)}
						>Pages</button
					>
					<span class="ml-2 flex items-center gap-1.5">
						<button
							class="button"
							aria-label="Page before"
							disabled={number === 1}
							onclick={() => show(number - 1)}>◂</button
						>
						<span class="font-mono text-[12px]">{number} of {pages}</span>
						<button
							class="button"
							aria-label="Next page"
							disabled={number === pages}
							onclick={() => show(number + 1)}>▸</button
						>
					</span>
				{/if}
				<form class="ml-2 flex items-center gap-1.5" onsubmit={search}>
					<input
						class="h-7 w-[130px] border border-rule bg-sheet px-2"
						type="search"
						placeholder="Words in this file"
						aria-label="Find words in this file"
						bind:value={query}
						oninput={() => ((hits = []), (hit = -1))}
						required
						minlength="2"
					/>
					<button class="button" disabled={looking || !pages}>Find</button>
					{#if hits.length}<span class="text-[12px] text-ink-2">{hit + 1} of {hits.length}</span><button
							type="button"
							class="button"
							aria-label="Place before"
							onclick={() => step(-1)}>◂</button
						>{:else if hit === -1 && query && !looking && texts.size}<span class="text-[12px] text-ink-2"
							>none</span
						>{/if}
				</form>
			{/snippet}
		</SheetFrame>
	</div>
</div>
