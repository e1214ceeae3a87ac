<script lang="ts">
	import type { Snippet } from 'svelte';
	import type { Face } from './sheet-face';
	import MadeViewer from './MadeViewer.svelte';
	import { familyOf, isPrintable, isServerFamily, kindWord } from '../../core/files/kinds';
	import { sizeText } from '../platform/words';
	import type { FileWithin } from './shown';
	import { VIEWERS } from './viewers';

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
	let inside = $state<FileWithin | null>(null);
	const shown = $derived(
		inside
			? { ...inside, download: download && `${inside.url}&download` }
			: { url: file ?? made, mediaType, fileName, size, download }
	);
	/** As it is printed, where it can be shown as text or cells too. */
	let printed = $state(false);
	/** Addresses whose archives can be listed. */
	const LISTED = /\/versions\/[^/]+\/file$/;
	const entries = $derived(file && LISTED.test(file) ? file.replace(/\/file$/, '/entries') : null);
	const family = $derived(familyOf(shown.mediaType));
	/** Who shows it here; 'server' where what the server makes of it is shown, null where nothing is. */
	const viewer = $derived.by(() => {
		if (!inside && (file === null || printed || isServerFamily(family))) return 'server';
		// What lies within an archive is listed by the server, for stored ones.
		if (isServerFamily(family) || (family === 'archive' && (inside || !entries))) return null;
		return VIEWERS[family];
	});
	let fault = $state('');
	const why = $derived(
		fault ||
			(viewer === null
				? `${kindWord(shown.mediaType, shown.fileName)} files are not shown here.`
				: viewer !== 'server' && shown.size > viewer.most
					? `With ${sizeText(shown.size)} the file is too large to show here.`
					: '')
	);
	const failed = (sentence: string) => (fault = sentence);
	// Told apart by what they are: the page is loaded again whenever somebody does something to what is shown.
	const url = $derived(shown.url);
	const address = $derived(`${file} ${made}`);
	$effect(() => {
		void url;
		fault = '';
	});
	$effect(() => {
		void address;
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
	{#if !inside && isPrintable(mediaType)}<p
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
				{#if viewer === 'server'}<MadeViewer
						url={made}
						{title}
						{failed}
						{printed}
						mediaType={shown.mediaType}
						withheld={!download}
						{entries}
						open={(within) => (inside = within)}
						layer={printed ? undefined : layer}
					/>
				{:else if viewer}<viewer.view
						url={shown.url}
						{title}
						{failed}
						mediaType={shown.mediaType}
						open={(within) => (inside = within)}
						layer={inside ? undefined : layer}
					/>{/if}
			{/key}
		{/if}
	</div>
</div>
