<script lang="ts">
	import { page } from '$app/state';
	import Gate from '$lib/ui/Gate.svelte';
</script>

<Gate title={page.status === 404 ? 'Nothing here' : 'This did not work'}>
	<p>{page.error?.message}</p>
	{#if page.status === 404}<p class="mt-2 text-ink-2">
			It may have been moved or removed, or your access to it may have ended. The activity and Removed tell
			what happened to what you may look at.
		</p>{/if}
	<p class="mt-4"><a class="button" href="/">To the shelves</a></p>
</Gate>
