<script lang="ts">
	import { onMount } from 'svelte';
	import Viewer from './Viewer.svelte';
	import { plural, sizeText } from './words';

	/** Lists what an archive holds, and opens one file of it. */
	let {
		url,
		title,
		download,
		failed
	}: { url: string; title: string; download: string | null; failed: (sentence: string) => void } = $props();

	interface Entry {
		name: string;
		size: number;
		locked: boolean;
	}
	let entries = $state.raw<Entry[] | null>(null);
	let more = $state(false);
	let opened = $state<(Entry & { mediaType: string }) | null>(null);
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
	async function open(entry: Entry) {
		const abort = new AbortController();
		const response = await fetch(address(entry.name), { signal: abort.signal });
		const mediaType = response.headers.get('x-media-type');
		// Only its kind is wanted here; the viewer fetches the file itself.
		abort.abort();
		opened = { ...entry, mediaType: mediaType ?? 'application/octet-stream' };
	}
</script>

{#if opened}
	<div class="flex h-full flex-col">
		<p class="flex items-center gap-3 border-b border-rule bg-sheet px-3 py-1">
			<button class="button" onclick={() => (opened = null)}>All {plural(entries!.length, 'file')}</button>
			<span class="truncate">{opened.name}</span>
		</p>
		<div class="min-h-0 flex-1">
			<Viewer
				url={address(opened.name)}
				download={download && `${address(opened.name)}&download`}
				title={opened.name}
				mediaType={opened.mediaType}
				fileName={opened.name.split('/').at(-1)!}
				size={opened.size}
			/>
		</div>
	</div>
{:else}
	<div class="h-full overflow-auto p-6" role="document" aria-label={title}>
		{#if entries === null}<p class="text-ink-2" role="status">opening</p>
		{:else}
			<table class="mx-auto w-full max-w-[880px] border border-rule bg-sheet">
				<thead class="text-[12px]"
					><tr class="border-b border-rule"
						><th class="py-1 pl-3">{plural(entries.length, 'file')}{more ? ' shown, there are more' : ''}</th
						><th class="pr-3 text-right">Size</th></tr
					></thead
				>
				<tbody>
					{#each entries as entry (entry.name)}<tr class="border-b border-rule-2">
							<td class="py-1 pl-3 break-all"
								>{#if entry.locked}{entry.name}
									<span class="text-[12px] text-ink-2">locked with a password</span>{:else}<button
										class="link text-left"
										onclick={() => void open(entry)}>{entry.name}</button
									>{/if}</td
							><td class="pr-3 text-right font-mono text-[12px]">{sizeText(entry.size)}</td>
						</tr>{/each}
				</tbody>
			</table>
		{/if}
	</div>
{/if}
