<script lang="ts">
	import { onMount } from 'svelte';
	import { decodeText, tellEncoding, type Encoding, type Told } from '../../core/files/encoding';
	import { familyOf } from '../../core/files/kinds';
	import EncodingChoice from './EncodingChoice.svelte';
	import { readText } from './read-office';
	import { bytesToShow, textToShow } from './shown';
	import { Unreadable } from '../../formats/package/fault';

	/** Shows text as it is, and Markdown, DOCX and ODT laid out; what they hold is cleaned before it is shown. */
	let {
		url,
		title,
		mediaType,
		made = false,
		failed
	}: {
		url: string;
		title: string;
		mediaType: string;
		made?: boolean;
		failed: (sentence: string) => void;
	} = $props();
	const plain = $derived(familyOf(mediaType) === 'text' && !made);
	let text = $state<string | null>(null);
	let html = $state('');
	let bytes: ArrayBuffer | null = null;
	/** How a plain text is encoded; null for files that say it themselves. */
	let told = $state<Told | null>(null);

	async function read(encoding: Encoding | null) {
		if (plain) text = decodeText(new Uint8Array(bytes!), encoding).text;
		else {
			html = await readText(bytes!, mediaType, encoding);
			text = '';
		}
	}

	onMount(() => {
		const abort = new AbortController();
		void (async () => {
			try {
				if (made) {
					html = await textToShow({ url, mediaType, made }, abort.signal);
					text = '';
				} else {
					bytes = await bytesToShow(url, abort.signal);
					if (mediaType.startsWith('text/')) told = tellEncoding(new Uint8Array(bytes));
					await read(null);
				}
			} catch (error) {
				if (!abort.signal.aborted)
					failed(error instanceof Unreadable ? error.message : 'The text could not be fetched.');
			}
		})();
		return () => abort.abort();
	});
</script>

<div class="flex h-full flex-col">
	{#if told && (told.by !== 'form' || told.encoding !== 'utf-8')}<EncodingChoice
			{told}
			choose={(encoding) => void read(encoding)}
		/>{/if}
	<div class="min-h-0 flex-1 overflow-auto p-6" role="document" aria-label={title}>
		{#if text === null}<p class="text-ink-2" role="status">opening</p>
		{:else if plain}<pre
				class="mx-auto w-fit max-w-full min-w-[60ch] overflow-auto border border-rule bg-sheet p-6 font-mono text-[12.5px]">{text}</pre>
		{:else}<div class="prose-sheet mx-auto max-w-[76ch] border border-rule bg-sheet p-8">
				<!-- eslint-disable-next-line svelte/no-at-html-tags -- cleaned by DOMPurify in cleanHtml -->
				{@html html}
			</div>{/if}
	</div>
</div>

<style>
	.prose-sheet :global(h1) {
		font-size: 22px;
		margin-bottom: 12px;
	}
	.prose-sheet :global(h2) {
		font-size: 16px;
		margin: 18px 0 6px;
	}
	.prose-sheet :global(header),
	.prose-sheet :global(footer) {
		margin-bottom: 14px;
		padding-bottom: 8px;
		border-bottom: 1px solid var(--rule);
		font-size: 12px;
		color: var(--ink-2);
	}
	.prose-sheet :global(footer) {
		margin: 14px 0 0;
		padding: 8px 0 0;
		border: 0;
		border-top: 1px solid var(--rule);
	}
	.prose-sheet :global(ul) {
		list-style: disc;
		padding-left: 20px;
	}
	.prose-sheet :global(ol) {
		list-style: decimal;
		padding-left: 20px;
	}
	.prose-sheet :global(p),
	.prose-sheet :global(li) {
		margin: 4px 0;
		line-height: 1.55;
	}
	.prose-sheet :global(code) {
		font-family: var(--font-mono);
	}
	.prose-sheet :global(table) {
		margin: 8px 0;
	}
	.prose-sheet :global(td),
	.prose-sheet :global(th) {
		border: 1px solid var(--rule);
		padding: 3px 8px;
	}
</style>
