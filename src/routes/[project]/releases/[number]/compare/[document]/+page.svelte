<script lang="ts">
	import type { Snippet } from 'svelte';
	import { addressOf } from '$lib/client/cupboard';
	import { isShownByServer } from '$lib/core/files/kinds';
	import { releaseNumber } from '$lib/core/releases';
	import SteppedComparison from '$lib/ui/compare/SteppedComparison.svelte';
	import Revision from '$lib/ui/documents/Revision.svelte';

	/** A document of a release against the issued revision that it takes the place of, for those on its route. */
	let { data } = $props();
	const file = $derived(data.file);
	const address = $derived(`/${data.frame.project.code.toLowerCase()}/releases/${data.release.number}`);
	function side({ label, mediaType }: { label: string; mediaType: string }, before: boolean) {
		const made = !file.mayGive || isShownByServer(mediaType);
		const url = addressOf(made ? 'releaseShown' : 'releaseFile', {
			...{ release: data.release.id, document: data.document },
			...(before ? { before: '' } : {})
		});
		return { url, made, mediaType, label, fileName: `${file.number} ${label}` };
	}
	const before = $derived(side(data.before, true));
	const after = $derived(side(file, false));
	const heading = $derived(`${file.number} from ${before.label} to ${after.label}`);
</script>

<svelte:head><title>{heading}</title></svelte:head>
<div class="flex h-full flex-col">
	<SteppedComparison
		{head}
		{before}
		{after}
		same={data.before.same}
		{heading}
		fileName="{file.number}_{before.label}_{after.label}"
		mayDownload={file.mayGive}
	/>
</div>
{#snippet head(steps: Snippet)}<div
		class="flex flex-wrap items-center gap-x-2.5 gap-y-1 border-b border-rule bg-sheet px-4 py-2"
	>
		<a class="link" href={address}>Release {releaseNumber(data.release.number)}</a>
		<a class="link font-mono text-[12.5px]" href="{address}/view/{data.document}">{file.number}</a>
		<h1 class="text-[16px]">{file.title}</h1>
		<Revision label={before.label} issued />
		<span class="text-ink-2">to</span>
		<Revision label={after.label} issued={!after.label.includes('.')} />
		{@render steps()}
	</div>{/snippet}
