<script lang="ts">
	import { goto } from '$app/navigation';
	import type { DocumentRow } from '../../core/rows';
	import { call, sentenceOf } from '../api';
	import Dialog from '../Dialog.svelte';
	import type { Imported } from './import-text';

	/** Makes a file a live text: says what of the file a live text cannot hold, then begins. */
	let {
		open = $bindable(false),
		row,
		code,
		done
	}: { open: boolean; row: DocumentRow; code: string; done: () => void } = $props();
	let read = $state.raw<Imported | null>(null);
	let fault = $state('');
	let busy = $state(false);

	$effect(() => {
		if (!open) return;
		const { id, label, mediaType } = row;
		read = null;
		fault = '';
		void (async () => {
			try {
				const response = await fetch(`/api/v1/documents/${id}/versions/${label}/file`);
				if (!response.ok) throw new Error();
				const { importText } = await import('./import-text');
				read = await importText(await response.arrayBuffer(), mediaType, code);
			} catch (error) {
				fault = error instanceof Error && error.message ? error.message : sentenceOf(error);
			}
		})();
	});
	async function begin() {
		busy = true;
		fault = '';
		try {
			await call('POST', `/documents/${row.id}/live`, {
				base: row.label,
				text: read!.text.toJSON() as unknown,
				pictures: read!.pictures
			});
			open = false;
			done();
			await goto(`/${code}/document/${row.id}`, { invalidateAll: true });
		} catch (error) {
			fault = sentenceOf(error);
		} finally {
			busy = false;
		}
	}
</script>

<Dialog bind:open title="Work on {row.number} live">
	<div class="space-y-3">
		<p>
			Everybody with Work writes in one text at one time, with Remark one suggests. {row.label} stays as the file
			it is; every hand-in makes a new version of the text.
		</p>
		{#if fault}<p role="alert" class="text-fault">{fault}</p>
		{:else if !read}<p role="status" class="text-ink-2">reading {row.fileName}</p>
		{:else if read.losses.length}<div class="border-l-4 border-lock bg-lock-soft px-3 py-1.5">
				<p class="font-semibold">Not everything of the file comes along:</p>
				<ul class="list-disc pl-4">
					{#each read.losses as one (one)}<li>{one}</li>{/each}
				</ul>
			</div>{/if}
		<div class="flex justify-end gap-2">
			<button class="button" onclick={() => (open = false)}>Cancel</button>
			<button class="button button-act" disabled={!read || busy} onclick={begin}>Work on this live</button>
		</div>
	</div>
</Dialog>
