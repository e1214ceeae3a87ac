<script lang="ts">
	import { addressOf } from '$lib/client/cupboard';
	import { goto } from '$app/navigation';
	import { isShownByServer } from '$lib/core/files/kinds';
	import Comparison from '$lib/ui/compare/Comparison.svelte';
	import { allows, type Level } from '$lib/core/access/levels';
	import Revision from '$lib/ui/documents/Revision.svelte';
	import RevisionRail from '$lib/ui/documents/RevisionRail.svelte';
	import { useShortcuts } from '$lib/ui/platform/shortcuts.svelte';

	let { data } = $props();
	const code = $derived(data.frame.project.code.toLowerCase());
	const row = $derived(data.view.row);
	const newer = $derived(data.other?.row ?? row);
	/** A file to compare: itself where it may be taken, else what the server makes of it. */
	type Of = { row: { id: string }; level: Level };
	const isMade = (of: Of, mediaType: string) => !allows(of.level, 'download') || isShownByServer(mediaType);
	type Stored = { mediaType: string; fileName: string };
	function version(of: Of, { label, mediaType, fileName }: Stored & { label: string }) {
		const made = isMade(of, mediaType);
		const url = addressOf(made ? 'versionShown' : 'versionFile', { document: of.row.id, label });
		return { url, made, mediaType, label, fileName };
	}
	function side(of: Of, { number, mediaType, fileName }: Stored & { number: number }) {
		const made = isMade(of, mediaType);
		const url = addressOf(made ? 'sideShown' : 'sideFile', { document: of.row.id, side: number });
		return { url, made, mediaType, label: `side ${number}`, fileName };
	}
	const before = $derived(version(data.view, data.from));
	const after = $derived(data.side ? side(data.view, data.side) : version(data.other ?? data.view, data.to));
	const same = $derived(data.from.hash === (data.side ?? data.to).hash);
	let total = $state(0);
	let current = $state(-1);
	let comparison = $state<Comparison>();
	const step = (by: number) => comparison?.step(by);
	const heading = $derived(
		data.other
			? `${row.number} ${data.from.label} with ${newer.number} ${data.to.label}`
			: `${row.number} from ${before.label} to ${after.label}`
	);
	function choose(from: string, to: string) {
		void goto(`?from=${from}&to=${to}${data.other ? `&with=${newer.id}` : ''}`, {
			replaceState: true,
			keepFocus: true
		});
	}
	$effect(() =>
		useShortcuts([
			{ key: ']', says: 'Next change', run: () => step(1) },
			{ key: '[', says: 'Change before', run: () => step(-1) },
			{ key: 'o', says: 'Open the newer', run: () => void goto(`/${code}/document/${newer.id}`) }
		])
	);
</script>

<svelte:head><title>Compare {heading}</title></svelte:head>
<div class="flex h-full flex-col">
	<div class="flex flex-wrap items-center gap-x-2.5 gap-y-1.5 border-b border-rule bg-sheet px-4 py-2">
		<a class="link" href="/{code}/document/{row.id}">{row.number}</a>
		<h1 class="text-[16px]">{row.title}</h1>
		<Revision label={data.from.label} issued={data.from.issued} />
		<span class="text-ink-2">to</span>
		{#if data.other}<a class="link" href="/{code}/document/{newer.id}">{newer.number}</a>
			<span class="font-semibold">{newer.title}</span>{/if}
		<Revision label={after.label} issued={!data.side && data.to.issued} />
		<span class="truncate text-ink-2">{(data.side ?? data.to).note}</span>
	</div>
	<div class="min-h-0 flex-1">
		<Comparison
			bind:this={comparison}
			bind:total
			bind:current
			{before}
			{after}
			{same}
			{heading}
			fileName={`${newer.number}_${before.label}_${after.label}`.replaceAll(' ', '-')}
			mayDownload={allows((data.other ?? data.view).level, 'download')}
		/>
	</div>
	<RevisionRail
		versions={data.view.versions}
		current={data.to.label}
		base="/{code}/document/{row.id}"
		pair={data.other || data.side ? null : { from: data.from.label, to: data.to.label }}
		{choose}
		changes={{ total, current, step }}
	/>
</div>
