<script lang="ts">
	import Viewer from '$lib/ui/viewers/Viewer.svelte';

	let { data } = $props();
	const file = $derived(`/pass/${data.secret}/file/${data.item.id}`);
</script>

<svelte:head
	><title>{data.item.number} {data.item.label}</title><meta name="robots" content="noindex" /></svelte:head
>
<div class="h-screen">
	<Viewer
		file={data.made ? null : file}
		made="{file}/shown"
		download={data.item.takeable ? `${file}?download` : null}
		title="{data.item.number} {data.item.title}"
		mediaType={data.item.mediaType}
		fileName="{data.item.number} {data.item.label}"
		size={data.item.size}
	/>
</div>
