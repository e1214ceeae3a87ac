<script lang="ts">
	import { toast } from '../kit/toast';
	import { cupboard } from '../../client/cupboard';
	import { attempt } from '../platform/api';
	import ReasonDialog from '../kit/ReasonDialog.svelte';

	/** Freezes a place with a reason, or thaws it; as a button, or from a menu that calls `start`. */
	let {
		place,
		thaws,
		bare = false,
		done
	}: {
		place: { id: string; name: string };
		/** Whether the freeze stands here, so that it can be thawed here. */
		thaws: boolean;
		/** Without a button of its own. */
		bare?: boolean;
		done: () => Promise<void> | void;
	} = $props();
	let asking = $state(false);

	async function thaw() {
		if (await attempt(() => cupboard.thawPlace({ place: place.id }))) {
			toast(`${place.name} is thawed.`);
			await done();
		}
	}
	export const start = () => (thaws ? void thaw() : (asking = true));
	async function act(reason: string) {
		await cupboard.freezePlace({ place: place.id, reason });
		toast(`${place.name} is frozen.`);
		await done();
	}
</script>

{#if !bare}<button class="button" onclick={start}>{thaws ? 'Thaw' : 'Freeze'}</button>{/if}
{#if asking}<ReasonDialog
		bind:open={asking}
		title="Freeze {place.name}?"
		consequence="Nobody below Manage changes anything here or beneath until it is thawed. Viewing, downloading and remarking go on; locks stay with their holders."
		button="Freeze"
		{act}
	/>{/if}
