<script lang="ts">
	import { cupboard } from '$lib/client/cupboard';
	import FilesIn from '$lib/ui/adding/FilesIn.svelte';
	import Gate from '$lib/ui/shell/Gate.svelte';
	import { queue } from '$lib/ui/adding/sending.svelte';
	import { dayText, sizeText } from '$lib/ui/platform/words';

	let { data } = $props();
	const hatch = $derived(data.hatch);
</script>

<svelte:head><meta name="robots" content="noindex" /></svelte:head>
<Gate title="Files for {hatch.project}">
	<p class="mb-1 text-[15px] font-semibold">{hatch.title}</p>
	<p class="mb-4 text-ink-2">
		Asked for by {hatch.by}. Open until {dayText(hatch.endsAt)}. Each file up to {sizeText(
			hatch.maxFileBytes
		)}{hatch.endings.length ? `; ${hatch.endings.map((e) => `.${e}`).join(', ')} only` : ''}. You see nothing
		of what others sent, and they see nothing of yours.
	</p>
	<FilesIn
		send={(file) => queue.sendThrough(`/hatch/${data.secret}`, file)}
		putIn={(files) => cupboard.putThroughHatch({ secret: data.secret, ...files })}
		maxFileBytes={hatch.maxFileBytes}
		endings={hatch.endings}
		asksSender
	/>
</Gate>
