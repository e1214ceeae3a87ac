<script lang="ts">
	import type { Snippet } from 'svelte';
	import type { Face } from './sheet-face';
	import DxfViewer from './DxfViewer.svelte';
	import PdfViewer from './PdfViewer.svelte';
	import PictureViewer from './PictureViewer.svelte';
	import FilmViewer from './FilmViewer.svelte';
	import MadeViewer from './MadeViewer.svelte';
	import { TABLE_KINDS } from '../formats/tables/read';
	import { TEXT_KINDS } from './read-office';
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
		size,
		made = false,
		layer
	}: {
		/** Where the file is, or, for those who may only look at it, what the server makes of it. */
		url: string;
		download: string | null;
		title: string;
		mediaType: string;
		fileName: string;
		size: number;
		made?: boolean;
		/** What lies over sheets: remarks and markup. */
		layer?: Snippet<[Face]>;
	} = $props();

	/** A file inside the archive that is shown, instead of the archive itself. */
	let inside = $state<{ url: string; mediaType: string; fileName: string; size: number } | null>(null);
	const shown = $derived(
		inside
			? { ...inside, download: download && `${inside.url}&download` }
			: { url, mediaType, fileName, size, download }
	);
	/** Addresses whose archives can be listed. */
	const LISTED = /\/versions\/[^/]+\/file$/;
	/** Largest file of each kind that is shown, in bytes; sound and film are streamed. */
	const MOST: Record<string, number> = {
		text: 40e6,
		table: 40e6,
		dxf: 60e6,
		picture: 200e6,
		zip: 2e9,
		pdf: 2e9
	};
	function kindOf(mediaType: string) {
		return mediaType === 'application/pdf'
			? 'pdf'
			: mediaType === 'image/vnd.dxf'
				? 'dxf'
				: ['image/png', 'image/jpeg', 'image/webp', 'image/gif', 'image/svg+xml'].includes(mediaType)
					? 'picture'
					: TABLE_KINDS.includes(mediaType)
						? 'table'
						: TEXT_KINDS.includes(mediaType)
							? 'text'
							: mediaType === 'application/zip' && !inside && LISTED.test(url)
								? 'zip'
								: /^(audio|video)\//.test(mediaType)
									? 'film'
									: null;
	}
	const kind = $derived(made ? 'made' : kindOf(shown.mediaType));
	let fault = $state('');
	const why = $derived(
		fault ||
			(kind === null
				? `${kindText(shown.mediaType, shown.fileName)} files are not shown here.`
				: shown.size > (MOST[kind] ?? Infinity)
					? `With ${sizeText(shown.size)} the file is too large to show here.`
					: '')
	);
	const failed = (sentence: string) => (fault = sentence);
	$effect(() => {
		void shown.url;
		fault = '';
	});
	$effect(() => {
		void url;
		inside = null;
	});
</script>

<div class="flex h-full flex-col">
	{#if inside}<p class="flex shrink-0 items-center gap-3 border-b border-rule bg-sheet px-3 py-1">
			<button class="button" onclick={() => (inside = null)}>Back to {fileName}</button>
			<span class="truncate">{inside.fileName}</span>
		</p>{/if}
	<div class="min-h-0 flex-1">
		{#if why}
			<div class="grid h-full place-items-center">
				<div class="border border-ink bg-sheet p-6 text-center">
					<p class="mb-1 text-[15px] font-semibold">{shown.fileName}</p>
					<p class="mb-4 text-ink-2">{why}</p>
					{#if shown.download}<a class="button button-act" href={shown.download} download
							>Download, {sizeText(shown.size)}</a
						>{/if}
				</div>
			</div>
		{:else}
			{#key shown.url}
				{@const file = { url: shown.url, title, failed }}
				{#if kind === 'made'}<MadeViewer {...file} mediaType={shown.mediaType} {layer} />
				{:else if kind === 'pdf'}<PdfViewer {...file} layer={inside ? undefined : layer} />
				{:else if kind === 'dxf'}<DxfViewer {...file} layer={inside ? undefined : layer} />
				{:else if kind === 'picture'}<PictureViewer {...file} layer={inside ? undefined : layer} />
				{:else if kind === 'table'}<TableViewer {...file} mediaType={shown.mediaType} />
				{:else if kind === 'zip'}<ZipViewer {...file} open={(one) => (inside = one)} />
				{:else if kind === 'film'}<FilmViewer {...file} sound={shown.mediaType.startsWith('audio/')} />
				{:else}<TextViewer {...file} mediaType={shown.mediaType} />{/if}
			{/key}
		{/if}
	</div>
</div>
