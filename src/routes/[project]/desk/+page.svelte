<script lang="ts">
	import { goto } from '$app/navigation';
	import { cupboard } from '$lib/client/cupboard';
	import Empty from '$lib/ui/kit/Empty.svelte';
	import { attempt } from '$lib/ui/platform/api';

	/** Before one has a desk: what it is, and the way to it. */
	let { data } = $props();
	let busy = $state(false);
	async function make() {
		busy = true;
		const made = await attempt(() => cupboard.openDesk({ project: data.frame.project.id }));
		if (made) await goto(`/${data.frame.project.code.toLowerCase()}/place/${made.id}`);
		busy = false;
	}
</script>

<svelte:head><title>Desk · {data.frame.project.name}</title></svelte:head>
<div class="h-full overflow-auto px-5 py-3">
	<div class="mb-2 flex flex-wrap items-baseline gap-x-4">
		<h1 class="text-[21px]">Desk</h1>
		<p class="text-ink-2">a place of your own, for what is not ready for others</p>
	</div>
	{#if data.may}<Empty>
			What you draft stands here: nobody else sees it, document controllers neither, until you move it to a
			shelf. When you leave the project, your desk becomes a shelf that document control looks after.
			{#snippet action()}<button class="button button-act" disabled={busy} onclick={make}>Make my desk</button
				>{/snippet}
		</Empty>{:else}<Empty
			>Desks are for people inside the project. What you work on lies in the folders given to you.</Empty
		>{/if}
</div>
