<script lang="ts">
	import { onMount } from 'svelte';
	import SheetFrame from './SheetFrame.svelte';
	import { prepare, ViewPort } from './view-port.svelte';

	/** Shows a picture. Through an image element, so that nothing inside an SVG can run. */
	let { url, title, failed }: { url: string; title: string; failed: (sentence: string) => void } = $props();

	const port = new ViewPort();
	let canvas = $state<HTMLCanvasElement>();
	let picture = $state.raw<HTMLImageElement | null>(null);

	onMount(() => {
		const image = new Image();
		image.onload = () => {
			port.sheetWidth = image.naturalWidth || 800;
			port.sheetHeight = image.naturalHeight || 600;
			picture = image;
			port.fit();
		};
		image.onerror = () => failed('The picture is damaged and cannot be shown.');
		image.src = url;
	});
	$effect(() => {
		if (!canvas || !picture || !port.width) return;
		const { context, ratio } = prepare(canvas, port);
		context.setTransform(ratio, 0, 0, ratio, 0, 0);
		context.drawImage(picture, port.x, port.y, port.sheetWidth * port.scale, port.sheetHeight * port.scale);
	});
</script>

<SheetFrame
	{port}
	bind:canvas
	label={title}
	status={picture ? `${picture.naturalWidth} × ${picture.naturalHeight} pixels` : 'opening'}
/>
