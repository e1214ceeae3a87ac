<script lang="ts">
	import { onMount } from 'svelte';
	import type { Snippet } from 'svelte';
	import type { Shown } from '../../core/files/shown';
	import MadePages from './MadePages.svelte';
	import MailViewer from './MailViewer.svelte';
	import type { Face } from './sheet-face';
	import { asking, readShown, type FileWithin } from './shown';
	import TableViewer from './TableViewer.svelte';
	import TextViewer from './TextViewer.svelte';
	import { Unreadable } from '../../formats/package/fault';
	import { plural, sizeText } from '../platform/words';

	/** Shows what the server makes of a file: of kinds that no browser opens, and for those who may view only. */
	let {
		url,
		title,
		mediaType,
		printed = false,
		withheld,
		entries,
		open,
		failed,
		layer
	}: {
		url: string;
		title: string;
		mediaType: string;
		/** As it is printed, where it could be shown as its text or its cells too. */
		printed?: boolean;
		/** The file itself is not given out. */
		withheld: boolean;
		/** Where the files that came with a mail are; null where they are not given out. */
		entries: string | null;
		/** Shows one of them. */
		open: (file: FileWithin) => void;
		failed: (sentence: string) => void;
		layer?: Snippet<[Face]>;
	} = $props();

	let shown = $state.raw<Shown | null>(null);
	onMount(() => {
		const abort = new AbortController();
		readShown(printed ? asking(url, 'printed') : url, abort.signal).then(
			(made) => (shown = made),
			(error: unknown) => {
				if (!abort.signal.aborted)
					failed(error instanceof Unreadable ? error.message : 'The file could not be fetched.');
			}
		);
		return () => abort.abort();
	});
</script>

{#if shown === null}<p class="p-6 text-ink-2" role="status">opening</p>
{:else if shown.kind === 'pages'}<MadePages {url} {title} {shown} {withheld} {failed} {layer} />
{:else if shown.kind === 'mail'}<MailViewer
		mail={shown}
		{title}
		{withheld}
		entries={withheld ? null : entries}
		{open}
	/>
{:else if shown.kind === 'text'}<TextViewer {url} {title} {mediaType} {failed} made />
{:else if shown.kind === 'table'}<TableViewer {url} {title} {mediaType} {failed} given={shown} />
{:else if shown.kind === 'archive'}
	<div class="h-full overflow-auto p-6" role="document" aria-label={title}>
		<table class="mx-auto w-full max-w-[880px] border border-rule bg-sheet">
			<caption class="pb-2 text-left text-ink-2">View only: opening what lies inside needs Download.</caption>
			<thead class="text-[12px]"
				><tr class="border-b border-rule"
					><th class="py-1 pl-3"
						>{plural(shown.entries.length, 'file')}{shown.more ? ' shown, there are more' : ''}</th
					><th class="pr-3 text-right">Size</th></tr
				></thead
			>
			<tbody>
				{#each shown.entries as entry (entry.name)}<tr class="border-b border-rule-2"
						><td class="py-1 pl-3 break-all">{entry.name}</td><td
							class="pr-3 text-right font-mono text-[12px]">{sizeText(entry.size)}</td
						></tr
					>{/each}
			</tbody>
		</table>
	</div>
{/if}
