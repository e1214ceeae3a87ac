<script lang="ts">
	import type { Snippet } from 'svelte';
	import { isShownByServer } from '$lib/core/files/kinds';
	import { releaseNumber } from '$lib/core/releases';
	import SteppedComparison from '$lib/ui/compare/SteppedComparison.svelte';
	import Revision from '$lib/ui/documents/Revision.svelte';

	/** What its recipient had of a document before, against what the release brings. */
	let { data } = $props();
	const item = $derived(data.item);
	function side(way: 'file' | 'before', { label, mediaType }: { label: string; mediaType: string }) {
		const made = isShownByServer(mediaType);
		const url = `/pass/${data.secret}/${way}/${item.documentId}${made ? '/shown' : ''}`;
		return { url, made, mediaType, label, fileName: `${item.number} ${label}` };
	}
	const before = $derived(side('before', data.before));
	const after = $derived(side('file', item));
</script>

<svelte:head
	><title>{item.number} from {before.label} to {after.label}</title><meta
		name="robots"
		content="noindex"
	/></svelte:head
>
<div class="flex h-screen flex-col">
	<SteppedComparison
		{head}
		{before}
		{after}
		same={false}
		heading="{item.number} from {before.label} to {after.label}"
		fileName="{item.number}_{before.label}_{after.label}"
		mayDownload
	/>
</div>
{#snippet head(steps: Snippet)}<header
		class="flex flex-wrap items-center gap-x-3 gap-y-1 bg-frame px-5 py-2.5 text-on-frame"
	>
		<a class="link" href="/pass/{data.secret}">Release {releaseNumber(data.release)}</a>
		<span class="font-mono">{item.number}</span><b>{item.title}</b>
		<Revision label={before.label} issued />
		<span class="text-[#c4d3cc]">of release {releaseNumber(data.before.release)}, to</span>
		<Revision label={after.label} issued />
		{@render steps()}
	</header>{/snippet}
