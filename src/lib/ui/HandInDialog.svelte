<script lang="ts">
	import { call, sendFile, uploadAddress, sentenceOf } from './api';
	import Dialog from './Dialog.svelte';
	import { sizeText } from './words';

	/** Hands in a new version with a note, or saves one and keeps the lock. */
	let {
		open = $bindable(false),
		document,
		number,
		project,
		done
	}: { open: boolean; document: string; number: string; project: string; done: () => void } = $props();
	let files = $state<FileList>();
	let note = $state('');
	let fault = $state('');
	let sent = $state<number | null>(null);
	let keep = false;
	const file = $derived(files?.[0]);

	async function submit(event: SubmitEvent) {
		event.preventDefault();
		if (!file) return;
		fault = '';
		sent = 0;
		try {
			const received = await sendFile(uploadAddress(project, file.name), file, (bytes) => (sent = bytes))
				.done;
			await call('POST', `/documents/${document}/versions`, {
				upload: received.upload,
				note,
				keepLock: keep
			});
			note = '';
			files = undefined;
			open = false;
			done();
		} catch (error) {
			fault = sentenceOf(error);
		} finally {
			sent = null;
		}
	}
</script>

<Dialog bind:open title="Hand in {number}">
	<form onsubmit={submit} class="space-y-3">
		<label class="block"
			><span class="label">The file you worked on</span><input
				class="field"
				type="file"
				bind:files
				required
			/></label
		>
		<label class="block"
			><span class="label">What changed</span><textarea
				class="field"
				bind:value={note}
				required
				maxlength="2000"></textarea></label
		>
		{#if sent !== null && file}<p class="text-ink-2" role="status">
				{sizeText(sent)} of {sizeText(file.size)}<progress
					class="ml-2 align-middle"
					max={file.size}
					value={sent}
				></progress>
			</p>{/if}
		{#if fault}<p role="alert" class="text-fault">{fault}</p>{/if}
		<div class="flex justify-end gap-2">
			<button class="button" disabled={sent !== null} onclick={() => (keep = true)}>Save and keep lock</button
			>
			<button class="button button-act" disabled={sent !== null} onclick={() => (keep = false)}
				>Hand in</button
			>
		</div>
	</form>
</Dialog>
