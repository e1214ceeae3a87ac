<script lang="ts">
	import { isShownByServer } from '$lib/core/files/kinds';
	import { releaseNumber } from '$lib/core/releases';
	import Comparison from '$lib/ui/compare/Comparison.svelte';
	import Revision from '$lib/ui/documents/Revision.svelte';
	import { useShortcuts } from '$lib/ui/platform/shortcuts.svelte';

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
	let total = $state(0);
	let current = $state(-1);
	let comparison = $state<Comparison>();
	const step = (by: number) => comparison?.step(by);
	$effect(() =>
		useShortcuts([
			{ key: ']', says: 'Next change', run: () => step(1) },
			{ key: '[', says: 'Change before', run: () => step(-1) }
		])
	);
</script>

<svelte:head
	><title>{item.number} from {before.label} to {after.label}</title><meta
		name="robots"
		content="noindex"
	/></svelte:head
>
<div class="flex h-screen flex-col">
	<header class="flex flex-wrap items-center gap-x-3 gap-y-1 bg-frame px-5 py-2.5 text-on-frame">
		<a class="link" href="/pass/{data.secret}">Release {releaseNumber(data.release)}</a>
		<span class="font-mono">{item.number}</span><b>{item.title}</b>
		<Revision label={before.label} issued />
		<span class="text-[#c4d3cc]">of release {releaseNumber(data.before.release)}, to</span>
		<Revision label={after.label} issued />
		<span class="ml-auto flex items-center gap-2" role="status"
			>{#if total}<button class="button" aria-label="Change before" onclick={() => step(-1)}>‹</button><span
					>{current < 0 ? total : `${current + 1} of ${total}`} {total === 1 ? 'change' : 'changes'}</span
				><button class="button" aria-label="Next change" onclick={() => step(1)}>›</button>{/if}</span
		>
	</header>
	<div class="min-h-0 flex-1">
		<Comparison
			bind:this={comparison}
			bind:total
			bind:current
			{before}
			{after}
			same={false}
			heading="{item.number} from {before.label} to {after.label}"
			fileName="{item.number}_{before.label}_{after.label}"
			mayDownload
		/>
	</div>
</div>
