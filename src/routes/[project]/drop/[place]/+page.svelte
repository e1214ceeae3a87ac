<script lang="ts">
	import { cupboard } from '$lib/client/cupboard';
	import FilesIn from '$lib/ui/adding/FilesIn.svelte';
	import { queue } from '$lib/ui/adding/sending.svelte';

	let { data } = $props();
</script>

<svelte:head><title>Put files in · {data.project}</title></svelte:head>
<div class="mx-auto max-w-[560px] px-5 py-8">
	<h1 class="mb-1 text-[20px]">Put files in{data.name ? `to ${data.name}` : ''}</h1>
	<p class="mb-4 text-ink-2">
		You may put files in here and see nothing of what is there. Whoever runs the place sorts them.
	</p>
	<FilesIn
		send={(file) => queue.send(data.frame.project, file)}
		putIn={({ uploads, note }) => cupboard.dropFiles({ place: data.id, uploads, note })}
		maxFileBytes={data.maxFileBytes}
		endings={[]}
	/>
</div>
