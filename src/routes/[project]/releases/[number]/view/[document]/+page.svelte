<script lang="ts">
	import { addressOf } from '$lib/client/cupboard';
	import { releaseNumber } from '$lib/core/releases';
	import { isSheetKind } from '$lib/core/files/kinds';
	import { onMount } from 'svelte';
	import { CHANGES, onTouched } from '$lib/ui/platform/live.svelte';
	import { refreshAll } from '$lib/ui/platform/refresh';
	import { KeptOnSheet } from '$lib/ui/markup/kept-on-sheet.svelte';
	import MarkupLayer from '$lib/ui/markup/MarkupLayer.svelte';
	import ReleaseMarks from '$lib/ui/releases/ReleaseMarks.svelte';
	import ReleaseRemarks from '$lib/ui/releases/ReleaseRemarks.svelte';
	import { PlacedRemarks } from '$lib/ui/remarks/placed.svelte';
	import SheetRemarks from '$lib/ui/remarks/SheetRemarks.svelte';
	import type { Face } from '$lib/ui/viewers/sheet-face';
	import Viewer from '$lib/ui/viewers/Viewer.svelte';

	/** A document of a release, and what is remarked on it from there, for those on its route, whatever else they may reach. */
	let { data } = $props();
	const file = $derived(data.file);
	const at = $derived({ release: data.release.id, document: data.document });
	const remarks = new PlacedRemarks(() => ({ rows: file.remarks, label: file.label }));
	const drawn = new KeptOnSheet(
		() => (data.answers.length ? { key: data.document, me: { id: 'reader', name: '' }, keep: null } : null),
		() => data.answers.flatMap((one) => one.marks)
	);
	const codes = $derived(data.answers.map((one) => one.layer));
	onMount(() => onTouched(CHANGES, refreshAll, (n) => n.document === data.document));
</script>

<svelte:head><title>{file.number} {file.label}</title></svelte:head>
<div class="flex h-full flex-col">
	<div class="flex flex-wrap items-center gap-x-2.5 gap-y-1 border-b border-rule bg-sheet px-4 py-2">
		<a class="link" href="/{data.frame.project.code.toLowerCase()}/releases/{data.release.number}"
			>Release {releaseNumber(data.release.number)}</a
		>
		<span class="font-mono text-[12.5px]">{file.number}</span>
		<h1 class="text-[16px]">{file.title}</h1>
		<span class="font-mono text-[12.5px]">{file.label}</span>
		{#if file.before && !file.before.same}<a
				class="link"
				href="/{data.frame.project.code.toLowerCase()}/releases/{data.release.number}/compare/{data.document}"
				>Compare with {file.before.label}</a
			>{/if}
		{#if file.mayView}<a
				class="link ml-auto"
				href="/{data.frame.project.code.toLowerCase()}/document/{data.document}?version={file.label}"
				>Open the document</a
			>{/if}
	</div>
	<div class="flex min-h-0 flex-1 max-lg:flex-col">
		<div class="min-h-0 min-w-0 flex-1">
			<Viewer
				layer={onSheet}
				file={file.mayGive ? addressOf('releaseFile', at) : null}
				made={addressOf('releaseShown', at)}
				download={file.mayGive ? addressOf('releaseFile', { ...at, download: '' }) : null}
				title="{file.number} {file.title}"
				mediaType={file.mediaType}
				fileName={file.fileName}
				size={file.size}
			/>
		</div>
		<aside
			class="overflow-auto border-rule bg-film max-lg:max-h-[48vh] max-lg:border-t lg:w-[340px] lg:border-l"
		>
			{#if data.answers.length}<ReleaseMarks
					answers={data.answers}
					markup={drawn.markup}
					file={file.mayGive
						? {
								address: addressOf('releaseFile', at),
								shown: addressOf('releaseShown', at),
								mediaType: file.mediaType,
								title: `${file.number} ${file.label}`
							}
						: null}
				/>{/if}
			<ReleaseRemarks
				release={data.release.id}
				document={data.document}
				rows={file.remarks}
				{remarks}
				mayPlace={isSheetKind(file.mediaType)}
				barred={data.barred}
			/>
		</aside>
	</div>
</div>

{#snippet onSheet(face: Face)}{#if drawn.markup}<MarkupLayer
			{face}
			markup={drawn.markup}
			{codes}
			editing={false}
		/>{/if}<SheetRemarks {face} {remarks} label={file.label} />{/snippet}
