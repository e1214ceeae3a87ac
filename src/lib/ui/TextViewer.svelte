<script lang="ts">
	import { onMount } from 'svelte';

	/** Shows text as it is, or Markdown laid out; what Markdown holds of HTML is cleaned before it is shown. */
	let {
		url,
		title,
		markdown,
		failed
	}: { url: string; title: string; markdown: boolean; failed: (sentence: string) => void } = $props();
	let text = $state<string | null>(null);
	let html = $state('');

	onMount(() => {
		void (async () => {
			try {
				const response = await fetch(url);
				if (!response.ok) throw new Error();
				const content = await response.text();
				if (markdown) {
					const [{ marked }, { default: purify }] = await Promise.all([
						import('marked'),
						import('dompurify')
					]);
					html = purify.sanitize(await marked.parse(content, { gfm: true }), {
						FORBID_TAGS: ['style', 'form', 'input'],
						FORBID_ATTR: ['style']
					});
				}
				text = content;
			} catch {
				failed('The text could not be fetched.');
			}
		})();
	});
</script>

<div class="h-full overflow-auto p-6" role="document" aria-label={title}>
	{#if text === null}<p class="text-ink-2" role="status">opening</p>
	{:else if markdown}<div class="prose-sheet mx-auto max-w-[76ch] border border-rule bg-sheet p-8">
			<!-- eslint-disable-next-line svelte/no-at-html-tags -- cleaned by DOMPurify above -->
			{@html html}
		</div>
	{:else}<pre
			class="mx-auto w-fit max-w-full min-w-[60ch] overflow-auto border border-rule bg-sheet p-6 font-mono text-[12.5px]">{text}</pre>{/if}
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
