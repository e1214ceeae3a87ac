<script lang="ts">
	import { toast } from '../kit/toast';
	import { cupboard } from '../../client/cupboard';
	import { attempt } from '../platform/api';
	import ReasonDialog from '../kit/ReasonDialog.svelte';

	/** Freezes a place with a reason, or thaws it. */
	let {
		place,
		thaws,
		done
	}: {
		place: { id: string; name: string };
		/** Whether the freeze stands here, so that it can be thawed here. */
		thaws: boolean;
		done: () => Promise<void> | void;
	} = $props();
	let asking = $state(false);

	async function thaw() {
		if (await attempt(() => cupboard.thawPlace({ place: place.id }))) {
			toast(`${place.name} is thawed.`);
			await done();
		}
	}
	async function act(reason: string) {
		await cupboard.freezePlace({ place: place.id, reason });
		toast(`${place.name} is frozen.`);
		await done();
	}
</script>

{#if thaws}<button class="button" onclick={thaw}>Thaw</button>
{:else}<button class="button" onclick={() => (asking = true)}>Freeze</button>{/if}
{#if asking}<ReasonDialog
		bind:open={asking}
		title="Freeze {place.name}?"
		consequence="Nobody below Manage changes anything here or beneath until it is thawed. Viewing, downloading and remarking go on; locks stay with their holders."
		button="Freeze"
		{act}
	/>{/if}
