<script lang="ts">
	import { addressOf } from '$lib/client/cupboard';
	import { releaseNumber } from '$lib/core/releases';
	import Viewer from '$lib/ui/viewers/Viewer.svelte';

	/** A document of a release, for those on its route who may not reach its folder. */
	let { data } = $props();
	const file = $derived(data.file);
	const at = $derived({ release: data.release.id, document: data.document });
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
	</div>
	<div class="min-h-0 flex-1">
		<Viewer
			file={file.mayGive ? addressOf('releaseFile', at) : null}
			made={addressOf('releaseShown', at)}
			download={file.mayGive ? addressOf('releaseFile', { ...at, download: '' }) : null}
			title="{file.number} {file.title}"
			mediaType={file.mediaType}
			fileName={file.fileName}
			size={file.size}
		/>
	</div>
</div>
