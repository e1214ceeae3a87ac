<script lang="ts">
	import { page } from '$app/state';
	import Empty from '$lib/ui/kit/Empty.svelte';

	/** What leads nowhere within a project: the band stays, and says where one can go on. */
	const base = $derived(`/${page.params.project?.toLowerCase()}`);
	const heading = $derived(
		page.error?.heading ?? (page.status === 404 ? 'Nothing here' : 'This did not work')
	);
	const missing = $derived(page.status === 404 && !page.error?.heading);
</script>

<svelte:head><title>{heading} · Cupboard</title></svelte:head>
<div class="mx-auto max-w-[560px] pt-[8vh]">
	<h1 class="text-center text-[21px]">{heading}</h1>
	<Empty>
		{page.error?.message}
		{#if missing}It may have been moved or removed, or your access to it may have ended. Activity tells what
			happened to what you may look at; Removed has what can be restored.{/if}
		{#snippet action()}<span class="flex flex-wrap justify-center gap-2">
				<a class="button button-act" href="{base}/shelves">To the shelves</a>
				<a class="button" href="{base}/find">Find</a>
				<a class="button" href="{base}/activity">Activity</a>
				<a class="button" href="{base}/removed">Removed</a>
			</span>{/snippet}
	</Empty>
</div>
