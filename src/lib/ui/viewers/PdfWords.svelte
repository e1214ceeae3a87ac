<script lang="ts">
	import type { PDFPageProxy } from 'pdfjs-dist';
	import type { ViewPort } from './view-port.svelte';

	/** The words of a page lying unseen over it, so that they can be selected and copied. */
	let { page, port, rotation }: { page: PDFPageProxy; port: ViewPort; rotation: number } = $props();

	/** Size at which the words are laid out once; the layer is then scaled with the sheet. */
	const LAID_OUT = 2;

	function words(of: PDFPageProxy, turned: number) {
		return (layer: HTMLDivElement) => {
			let stop = () => {};
			void (async () => {
				const { TextLayer } = await import('pdfjs-dist');
				const text = new TextLayer({
					textContentSource: of.streamTextContent(),
					container: layer,
					viewport: of.getViewport({ scale: LAID_OUT, rotation: turned })
				});
				stop = () => text.cancel();
				await text.render().catch(() => {});
			})();
			return () => {
				stop();
				layer.replaceChildren();
			};
		};
	}
	/** Selecting must not move the sheet beneath; a handler of Svelte's own would come too late for that. */
	function keep(layer: HTMLDivElement) {
		const stop = (event: PointerEvent) => event.stopPropagation();
		layer.addEventListener('pointerdown', stop);
		return () => layer.removeEventListener('pointerdown', stop);
	}
</script>

<div
	class="absolute top-0 left-0 origin-top-left cursor-text touch-auto select-text"
	style:--total-scale-factor={LAID_OUT}
	style:transform="translate({port.x}px, {port.y}px) scale({port.scale / LAID_OUT})"
	{@attach keep}
>
	<div class="pdf-words" {@attach words(page, rotation)}></div>
</div>

<style>
	/* What the library expects of the layer it fills: its own sizes and angles come as variables. */
	.pdf-words {
		--min-font-size: 1;
		--scale-round-x: 1px;
		--scale-round-y: 1px;
		position: absolute;
		--text-scale-factor: calc(var(--total-scale-factor) * var(--min-font-size));
		line-height: 1;
		transform-origin: 0 0;
		text-size-adjust: none;
		forced-color-adjust: none;
	}
	.pdf-words:global([data-main-rotation='90']) {
		transform: rotate(90deg) translateY(-100%);
	}
	.pdf-words:global([data-main-rotation='180']) {
		transform: rotate(180deg) translate(-100%, -100%);
	}
	.pdf-words:global([data-main-rotation='270']) {
		transform: rotate(270deg) translateX(-100%);
	}
	.pdf-words :global(:is(span, br)) {
		position: absolute;
		color: transparent;
		white-space: pre;
		transform-origin: 0 0;
	}
	.pdf-words :global(.markedContent) {
		display: contents;
	}
	.pdf-words :global(span:not(.markedContent)) {
		font-size: calc(var(--text-scale-factor) * var(--font-height, 0));
		transform: rotate(var(--rotate, 0deg)) scaleX(var(--scale-x, 1)) scale(calc(1 / var(--min-font-size)));
	}
	.pdf-words :global(::selection) {
		background: rgb(11 107 88 / 0.3);
	}
</style>
