<script lang="ts">
	import { page } from '$app/state';
	import { toast } from 'svelte-sonner';
	import { call, sentenceOf } from './api';
	import Dialog from './Dialog.svelte';
	import { queue, type Sending } from './sending.svelte';
	import { sizeText } from './words';

	/**
	 * Hands in a new version with a note, or saves one and keeps the lock. Without the lock (`labels` given) the file is
	 * kept beside the line. What looks wrong with it is said before.
	 */
	let {
		open = $bindable(false),
		document,
		number,
		project,
		labels = null,
		done
	}: {
		open: boolean;
		document: string;
		number: string;
		project: string;
		/** The versions it may have been made from, newest first; null hands in on the line. */
		labels?: string[] | null;
		done: () => void;
	} = $props();
	let files = $state<FileList>();
	let note = $state('');
	let fault = $state('');
	let sending = $state<Sending | null>(null);
	let busy = $state(false);
	let keep = false;
	let base = $state('');
	let warnings = $state<string[]>([]);
	/** What was sent and warned about; handing in again means it. */
	let received = $state<string | null>(null);
	const file = $derived(files?.[0]);

	function again() {
		received = null;
		warnings = [];
	}
	async function submit(event: SubmitEvent) {
		event.preventDefault();
		if (!file) return;
		fault = '';
		busy = true;
		try {
			if (!received) {
				sending = queue.send({ code: project, keepPosition: page.data.frame.project.keepPosition }, file);
				received = await sending.done;
				({ warnings } = await call<{ warnings: string[] }>(
					'GET',
					`/documents/${document}/hand-in-check?upload=${received}`
				));
				if (warnings.length) return;
			}
			const { side } = await call<{ side: number | null }>('POST', `/documents/${document}/versions`, {
				upload: received,
				note,
				keepLock: keep,
				...(base ? { base } : {})
			});
			if (side) toast.success(`Kept as side version ${side}, beside the line.`);
			open = false;
			done();
		} catch (error) {
			fault = sentenceOf(error);
		} finally {
			busy = false;
			sending = null;
		}
	}
</script>

<Dialog bind:open title="{labels ? 'Hand in beside' : 'Hand in'} {number}">
	<form onsubmit={submit} class="space-y-3">
		{#if labels}<p class="text-ink-2">
				You do not have this in hand. Your file overwrites nothing: it is kept as a side version until
				somebody merges or drops it.
			</p>{/if}
		<label class="block"
			><span class="label">The file you worked on</span><input
				class="field"
				type="file"
				bind:files
				onchange={again}
				required
			/></label
		>
		{#if labels}<label class="block"
				><span class="label">Made from</span><select class="field" bind:value={base}>
					<option value="">what I had in hand last</option>
					{#each labels as label (label)}<option>{label}</option>{/each}
				</select></label
			>{/if}
		<label class="block"
			><span class="label">What changed</span><textarea
				class="field"
				bind:value={note}
				required
				maxlength="2000"></textarea></label
		>
		{#if sending && file}<p class="text-ink-2" role="status">
				{sizeText(sending.sent)} of {sizeText(file.size)}<progress
					class="ml-2 align-middle"
					max={file.size}
					value={sending.sent}
				></progress>
			</p>{/if}
		{#if warnings.length}<div role="alert" class="border-l-4 border-lock bg-lock-soft px-3 py-1.5">
				{#each warnings as warning (warning)}<p>{warning}</p>{/each}
				<p class="mt-1 font-semibold">The file was received. Hand in all the same, or choose another file.</p>
			</div>{/if}
		{#if fault}<p role="alert" class="text-fault">{fault}</p>{/if}
		<div class="flex justify-end gap-2">
			{#if !labels}<button class="button" disabled={busy} onclick={() => (keep = true)}
					>Save and keep lock</button
				>{/if}
			<button class="button button-act" disabled={busy} onclick={() => (keep = false)}
				>{warnings.length ? 'Hand in all the same' : labels ? 'Hand in beside' : 'Hand in'}</button
			>
		</div>
	</form>
</Dialog>
