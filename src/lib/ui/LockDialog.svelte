<script lang="ts">
	import { call, sentenceOf } from './api';
	import Dialog from './Dialog.svelte';

	/** Takes a document in hand, with a purpose and an expected end. */
	let {
		open = $bindable(false),
		document,
		number,
		done
	}: { open: boolean; document: string; number: string; done: () => void } = $props();
	let purpose = $state('');
	let end = $state('');
	let fault = $state('');

	/** The end of this working day, or of the next one in the evening, as the field wants it. */
	function suggested(): string {
		const at = new Date();
		if (at.getHours() >= 16) at.setDate(at.getDate() + 1);
		at.setHours(17, 0, 0, 0);
		return new Date(at.getTime() - at.getTimezoneOffset() * 60_000).toISOString().slice(0, 16);
	}
	$effect(() => {
		if (open && !end) end = suggested();
	});

	async function take(event: SubmitEvent) {
		event.preventDefault();
		fault = '';
		try {
			await call('POST', `/documents/${document}/lock`, {
				purpose,
				expectedEnd: end ? new Date(end).toISOString() : null
			});
			purpose = '';
			end = '';
			open = false;
			done();
		} catch (error) {
			fault = sentenceOf(error);
		}
	}
</script>

<Dialog bind:open title="Lock {number}">
	<form onsubmit={take} class="space-y-3">
		<p class="text-ink-2">
			While you have it in hand, everybody else sees the last version and that you have it. They can look, but
			not hand in.
		</p>
		<label class="block"
			><span class="label">What for</span><input
				class="field"
				bind:value={purpose}
				maxlength="200"
				placeholder="pit wall setting out"
			/></label
		>
		<label class="block"
			><span class="label">Expected end</span><input
				class="field"
				type="datetime-local"
				bind:value={end}
			/></label
		>
		{#if fault}<p role="alert" class="text-fault">{fault}</p>{/if}
		<div class="flex justify-end gap-2">
			<button type="button" class="button" onclick={() => (open = false)}>Cancel</button><button
				class="button button-act">Lock</button
			>
		</div>
	</form>
</Dialog>
