<script lang="ts">
	import { onMount } from 'svelte';
	import { asSeen, type Face, type SheetViewer } from './sheet-face';
	import SheetFrame from './SheetFrame.svelte';
	import { prepare, ViewPort } from './view-port.svelte';
	import { takenText } from '../platform/words';

	/** Shows a picture. Through an image element, so that nothing inside an SVG can run; a photograph says when, where and by what it was taken. */
	let { url, title, failed, layer }: SheetViewer = $props();

	const port = new ViewPort();
	const face: Face = { port, page: 1, unit: 'px', ...asSeen, turnTo: () => {} };
	let canvas = $state<HTMLCanvasElement>();
	let picture = $state.raw<HTMLImageElement | null>(null);
	let taken = $state('');

	onMount(() => {
		const abort = new AbortController();
		let address = '';
		void (async () => {
			try {
				const response = await fetch(url, { signal: abort.signal });
				if (!response.ok) return failed('The picture could not be fetched.');
				const blob = await response.blob();
				address = URL.createObjectURL(blob);
				show(address);
				if (blob.type === 'image/jpeg') taken = await takenFrom(blob);
			} catch {
				if (!abort.signal.aborted) failed('The picture could not be fetched.');
			}
		})();
		return () => {
			abort.abort();
			URL.revokeObjectURL(address);
		};
	});
	function show(address: string) {
		const image = new Image();
		image.onload = () => {
			port.sheetWidth = image.naturalWidth || 800;
			port.sheetHeight = image.naturalHeight || 600;
			picture = image;
			port.fit();
		};
		image.onerror = () => failed('The picture is damaged and cannot be shown.');
		image.src = address;
	}
	/** What the camera wrote into a photograph (EXIF), in words; empty when it wrote nothing that can be read. */
	async function takenFrom(blob: Blob): Promise<string> {
		const { parse } = await import('exifr');
		const wanted = ['Make', 'Model', 'DateTimeOriginal', 'GPSLatitude', 'GPSLongitude'];
		const written = (await parse(blob, { pick: wanted }).catch(() => null)) as
			| Parameters<typeof takenText>[0]
			| null;
		return written ? takenText(written) : '';
	}

	$effect(() => {
		if (!canvas || !picture || !port.width) return;
		const { context, ratio } = prepare(canvas, port);
		context.setTransform(ratio, 0, 0, ratio, 0, 0);
		context.drawImage(picture, port.x, port.y, port.sheetWidth * port.scale, port.sheetHeight * port.scale);
	});
	const status = $derived(
		picture
			? [`${picture.naturalWidth} × ${picture.naturalHeight} pixels`, taken].filter(Boolean).join(' · ')
			: 'opening'
	);
</script>

{#snippet over()}{@render layer?.(face)}{/snippet}
<SheetFrame {port} bind:canvas label={title} {status} overlay={layer && picture ? over : undefined} />
