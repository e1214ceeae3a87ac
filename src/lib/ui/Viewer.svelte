<script lang="ts">
	import DxfViewer from './DxfViewer.svelte';
	import PdfViewer from './PdfViewer.svelte';
	import PictureViewer from './PictureViewer.svelte';
	import FilmViewer from './FilmViewer.svelte';
	import { TABLE_KINDS, TEXT_KINDS } from './read-office';
	import TableViewer from './TableViewer.svelte';
	import TextViewer from './TextViewer.svelte';
	import ZipViewer from './ZipViewer.svelte';
	import { kindText, sizeText } from './words';

	/** Shows a stored file by its kind; what cannot be shown says why and offers the download. */
	let {
		url,
		download,
		title,
		mediaType,
		fileName,
		size
	}: {
		url: string;
		download: string | null;
		title: string;
		mediaType: string;
		fileName: string;
		size: number;
	} = $props();

	/** Largest file of each kind that is shown, in bytes; sound and film are streamed. */
	const MOST: Record<string, number> = {
		text: 40e6,
		table: 40e6,
		dxf: 60e6,
		picture: 200e6,
		zip: 2e9,
		pdf: 2e9
	};
	const kind = $derived(
		mediaType === 'application/pdf'
			? 'pdf'
			: mediaType === 'image/vnd.dxf'
				? 'dxf'
				: ['image/png', 'image/jpeg', 'image/webp', 'image/gif', 'image/svg+xml'].includes(mediaType)
					? 'picture'
					: TABLE_KINDS.includes(mediaType)
						? 'table'
						: TEXT_KINDS.includes(mediaType)
							? 'text'
							: mediaType === 'application/zip'
								? 'zip'
								: /^(audio|video)\//.test(mediaType)
									? 'film'
									: null
	);
	let fault = $state('');
	const why = $derived(
		fault ||
			(kind === null
				? `${kindText(mediaType, fileName)} files are not shown here.`
				: size > (MOST[kind] ?? Infinity)
					? `With ${sizeText(size)} the file is too large to show here.`
					: '')
	);
	const failed = (sentence: string) => (fault = sentence);
	$effect(() => {
		void url;
		fault = '';
	});
</script>

{#if why}
	<div class="grid h-full place-items-center">
		<div class="border border-ink bg-sheet p-6 text-center">
			<p class="mb-1 text-[15px] font-semibold">{fileName}</p>
			<p class="mb-4 text-ink-2">{why}</p>
			{#if download}<a class="button button-act" href={download} download>Download, {sizeText(size)}</a>{/if}
		</div>
	</div>
{:else}
	{#key url}
		{#if kind === 'pdf'}<PdfViewer {url} {title} {failed} />
		{:else if kind === 'dxf'}<DxfViewer {url} {title} {failed} />
		{:else if kind === 'picture'}<PictureViewer {url} {title} {failed} />
		{:else if kind === 'table'}<TableViewer {url} {title} {mediaType} {failed} />
		{:else if kind === 'zip'}<ZipViewer {url} {title} {download} {failed} />
		{:else if kind === 'film'}<FilmViewer {url} {title} sound={mediaType.startsWith('audio/')} {failed} />
		{:else}<TextViewer {url} {title} {mediaType} {failed} />{/if}
	{/key}
{/if}
