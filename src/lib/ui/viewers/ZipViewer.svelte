<script lang="ts">
	import Table from '../kit/Table.svelte';
	import { onMount } from 'svelte';
	import { plural, sizeText } from '../platform/words';
	import type { FileWithin } from './shown';

	/** Lists what an archive holds, each file to be opened. */
	let {
		url,
		title,
		open,
		failed
	}: {
		url: string;
		title: string;
		/** Shows one file of the archive; its address can be downloaded with `&download`. */
		open: (file: FileWithin) => void;
		failed: (sentence: string) => void;
	} = $props();

	interface Entry {
		name: string;
		size: number;
		locked: boolean;
	}
	let entries = $state.raw<Entry[] | null>(null);
	let more = $state(false);
	const base = $derived(url.replace(/\/file$/, '/entries'));
	const address = (name: string) => `${base}?name=${encodeURIComponent(name)}`;

	onMount(() => {
		void (async () => {
			const response = await fetch(base);
			const answer = (await response.json().catch(() => ({}))) as {
				entries?: Entry[];
				more?: boolean;
				detail?: string;
			};
			if (!answer.entries) return failed(answer.detail ?? 'The archive could not be opened.');
			entries = answer.entries;
			more = answer.more ?? false;
		})();
	});
	async function choose(entry: Entry) {
		const abort = new AbortController();
		const response = await fetch(address(entry.name), { signal: abort.signal });
		const mediaType = response.headers.get('x-media-type') ?? 'application/octet-stream';
		// Only its kind is wanted here; the viewer fetches the file itself.
		abort.abort();
		open({ url: address(entry.name), mediaType, fileName: entry.name, size: entry.size });
	}
</script>

<div class="h-full overflow-auto p-6" role="document" aria-label={title}>
	{#if entries === null}<p class="text-ink-2" role="status">opening</p>
	{:else}
		<div class="mx-auto max-w-[880px] border-x border-rule">
			<Table
				label="Files of the archive"
				rows={entries}
				key={(entry) => entry.name}
				empty="There is no file in this archive."
				columns={[
					{
						id: 'file',
						head: `${plural(entries.length, 'file')}${more ? ' shown, there are more' : ''}`,
						cell: file,
						by: (entry) => entry.name,
						class: 'break-all'
					},
					{
						id: 'size',
						head: 'Size',
						text: (entry) => sizeText(entry.size),
						by: (entry) => entry.size,
						class: 'font-mono text-[12px] whitespace-nowrap',
						right: true
					}
				]}
			/>
		</div>
	{/if}
</div>

{#snippet file(entry: Entry)}{#if entry.locked}{entry.name}
		<span class="text-[12px] text-ink-2">locked with a password</span>{:else}<button
			class="link text-left"
			onclick={() => void choose(entry)}>{entry.name}</button
		>{/if}{/snippet}
