<script lang="ts">
	import { createVirtualizer } from '@tanstack/svelte-virtual';
	import type { PDFDocumentProxy } from 'pdfjs-dist';
	import { untrack } from 'svelte';

	/** The pages of a PDF as small pictures, drawn as they come into sight. */
	let {
		pdf,
		pages,
		current,
		turn,
		show
	}: {
		pdf: PDFDocumentProxy;
		pages: number;
		current: number;
		/** Degrees that pages are turned by. */
		turn: number;
		show: (page: number) => void;
	} = $props();

	const WIDTH = 108;
	const HEIGHT = 150;
	let scroller = $state<HTMLDivElement>();
	const virtual = createVirtualizer<HTMLDivElement, HTMLDivElement>({
		count: 0,
		getScrollElement: () => scroller ?? null,
		estimateSize: () => HEIGHT,
		overscan: 2
	});
	$effect(() => {
		const [count, element] = [pages, scroller];
		untrack(() => $virtual.setOptions({ count, getScrollElement: () => element ?? null }));
	});
	$effect(() => {
		const at = current - 1;
		untrack(() => $virtual.scrollToIndex(at));
	});

	/** Draws one page into its canvas, unless it has left sight meanwhile. */
	function small(number: number, turned: number) {
		return (canvas: HTMLCanvasElement) => {
			let gone = false;
			void (async () => {
				const page = await pdf.getPage(number);
				if (gone) return;
				const rotation = (page.rotate + turned) % 360;
				const whole = page.getViewport({ scale: 1, rotation });
				const ratio = window.devicePixelRatio || 1;
				const scale = Math.min(WIDTH / whole.width, (HEIGHT - 26) / whole.height) * ratio;
				const viewport = page.getViewport({ scale, rotation });
				canvas.width = Math.ceil(viewport.width);
				canvas.height = Math.ceil(viewport.height);
				canvas.style.width = `${viewport.width / ratio}px`;
				await page.render({ canvas, viewport, background: '#fff' }).promise.catch(() => {});
			})();
			return () => (gone = true);
		};
	}
</script>

<div
	bind:this={scroller}
	class="h-full w-[136px] shrink-0 overflow-auto border-r border-rule bg-film"
	role="navigation"
	aria-label="Pages"
>
	<div class="relative" style:height="{$virtual.getTotalSize()}px">
		{#each $virtual.getVirtualItems() as item (item.key)}
			{@const number = item.index + 1}
			<button
				class="absolute inset-x-0 top-0 flex flex-col items-center justify-end gap-0.5 pb-1"
				style:height="{HEIGHT}px"
				style:transform="translateY({item.start}px)"
				aria-current={number === current ? 'page' : undefined}
				onclick={() => show(number)}
			>
				<canvas
					class="border bg-white {number === current ? 'border-act outline-2 outline-act' : 'border-rule'}"
					{@attach small(number, turn)}
				></canvas>
				<span class="font-mono text-[11px] {number === current ? 'font-semibold' : 'text-ink-2'}"
					>{number}</span
				>
			</button>
		{/each}
	</div>
</div>
