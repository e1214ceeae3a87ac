<script lang="ts">
	import type { Snippet } from 'svelte';
	import type { Face } from './sheet-face';
	import DxfViewer from './DxfViewer.svelte';
	import PdfViewer from './PdfViewer.svelte';
	import PictureViewer from './PictureViewer.svelte';
	import FilmViewer from './FilmViewer.svelte';
	import MadeViewer from './MadeViewer.svelte';
	import { isShownByServer, PICTURES, PRINTABLE } from '../../core/files/file-kinds';
	import { TABLE_KINDS, TEXT_KINDS } from '../../core/files/media';
	import TableViewer from './TableViewer.svelte';
	import TextViewer from './TextViewer.svelte';
	import ZipViewer from './ZipViewer.svelte';
	import { kindText, sizeText } from '../platform/words';

	/** Shows a stored file by its kind; what cannot be shown says why and offers the download. */
	let {
		file,
		made,
		download,
		title,
		mediaType,
		fileName,
		size,
		layer
	}: {
		/** Where the file is; null for those who may only look at it. */
		file: string | null;
		/** Where that is what the server makes of it. */
		made: string;
		download: string | null;
		title: string;
		mediaType: string;
		fileName: string;
		size: number;
		/** What lies over sheets: remarks and markup. */
		layer?: Snippet<[Face]>;
	} = $props();

	/** A file inside the archive that is shown, instead of the archive itself. */
	let inside = $state<{ url: string; mediaType: string; fileName: string; size: number } | null>(null);
	const shown = $derived(
		inside
			? { ...inside, download: download && `${inside.url}&download` }
			: { url: file ?? made, mediaType, fileName, size, download }
	);
	/** Kinds that the server shows to everybody, and what is wanted as it is printed. */
	let printed = $state(false);
	const byServer = $derived(!inside && (file === null || printed || isShownByServer(mediaType)));
	/** Addresses whose archives can be listed. */
	const LISTED = /\/versions\/[^/]+\/file$/;
	const entries = $derived(file && LISTED.test(file) ? file.replace(/\/file$/, '/entries') : null);
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
				: PICTURES.includes(mediaType)
					? 'picture'
					: TABLE_KINDS.includes(mediaType)
						? 'table'
						: TEXT_KINDS.includes(mediaType)
							? 'text'
							: mediaType === 'application/zip' && !inside && entries
								? 'zip'
								: /^(audio|video)\//.test(mediaType)
									? 'film'
									: null;
	}
	const kind = $derived(byServer ? 'made' : kindOf(shown.mediaType));
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
		void [file, made];
		inside = null;
		printed = false;
	});
	$effect(() => {
		void printed;
		fault = '';
	});
</script>

<div class="flex h-full flex-col">
	{#if inside}<p class="flex shrink-0 items-center gap-3 border-b border-rule bg-sheet px-3 py-1">
			<button class="button" onclick={() => (inside = null)}>Back to {fileName}</button>
			<span class="truncate">{inside.fileName}</span>
		</p>{/if}
	{#if !inside && PRINTABLE.includes(mediaType)}<p
			class="flex shrink-0 items-center gap-2 border-b border-rule bg-sheet px-3 py-1"
		>
			<button class="button" aria-pressed={printed} onclick={() => (printed = !printed)}
				>{printed ? 'As text and cells' : 'As printed'}</button
			>
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
			{#key shown.url + String(printed)}
				{@const one = { url: shown.url, title, failed }}
				{#if kind === 'made'}<MadeViewer
						{...one}
						url={made}
						{printed}
						mediaType={shown.mediaType}
						withheld={!download}
						{entries}
						open={(within) => (inside = within)}
						layer={printed ? undefined : layer}
					/>
				{:else if kind === 'pdf'}<PdfViewer {...one} layer={inside ? undefined : layer} />
				{:else if kind === 'dxf'}<DxfViewer {...one} layer={inside ? undefined : layer} />
				{:else if kind === 'picture'}<PictureViewer {...one} layer={inside ? undefined : layer} />
				{:else if kind === 'table'}<TableViewer {...one} mediaType={shown.mediaType} />
				{:else if kind === 'zip'}<ZipViewer {...one} open={(within) => (inside = within)} />
				{:else if kind === 'film'}<FilmViewer {...one} sound={shown.mediaType.startsWith('audio/')} />
				{:else}<TextViewer {...one} mediaType={shown.mediaType} />{/if}
			{/key}
		{/if}
	</div>
</div>
