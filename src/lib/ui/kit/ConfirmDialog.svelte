<script lang="ts">
	import { sentenceOf } from '../platform/api';
	import Dialog from './Dialog.svelte';

	/** Asks before something that matters, with what it means; stays open and says why when it fails. */
	interface Asking {
		title: string;
		text: string;
		button: string;
		act: () => Promise<unknown>;
	}
	let { asking = $bindable(null), done }: { asking: Asking | null; done: () => Promise<void> | void } =
		$props();
	let fault = $state('');
	let busy = $state(false);

	async function act() {
		fault = '';
		busy = true;
		try {
			await asking!.act();
			asking = null;
			await done();
		} catch (error) {
			fault = sentenceOf(error);
		}
		busy = false;
	}
</script>

<Dialog
	bind:open={
		() => asking !== null,
		(open) => {
			if (!open) asking = null;
		}
	}
	title={asking?.title ?? ''}
>
	<p>{asking?.text}</p>
	{#if fault}<p role="alert" class="mt-2 text-fault">{fault}</p>{/if}
	<div class="mt-4 flex justify-end gap-2">
		<button class="button" onclick={() => (asking = null)}>Cancel</button>
		<button class="button button-fault" disabled={busy} onclick={act}>{asking?.button}</button>
	</div>
</Dialog>
