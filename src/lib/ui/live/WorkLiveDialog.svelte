<script lang="ts">
	import { onMount } from 'svelte';
	import { goto } from '$app/navigation';
	import type { DocumentRow } from '../../core/documents/rows';
	import { Unreadable } from '../../formats/package/fault';
	import { CallError } from '../../client/call';
	import { sendFile, sentenceOf, uploadAddress } from '../platform/api';
	import Dialog from '../kit/Dialog.svelte';
	import type { LiveKind } from '../../core/live/live';
	import type { Kept } from './import-text';
	import { ON_SCREEN, type Beginning } from './kinds';

	/** Makes a file a live document: says what of the file cannot come along, then begins. */
	let {
		open = $bindable(false),
		row,
		code,
		kind,
		done
	}: { open: boolean; row: DocumentRow; code: string; kind: LiveKind; done: () => void } = $props();
	let read = $state.raw<Beginning | null>(null);
	let fault = $state('');
	let busy = $state(false);

	async function keepPicture(file: File): Promise<Kept> {
		const { width } = await createImageBitmap(file);
		return { ...(await sendFile(uploadAddress(code, file.name), file, () => {}).done), width };
	}
	onMount(() => {
		ON_SCREEN[kind]
			.fromFile(row, keepPicture)
			.then((made) => (read = made))
			.catch((error: unknown) => {
				fault =
					error instanceof Unreadable
						? error.message
						: error instanceof CallError
							? sentenceOf(error)
							: 'What stands in this file cannot be taken over; it can still be downloaded.';
			});
	});
	async function begin() {
		busy = true;
		fault = '';
		try {
			await read!.begin();
			open = false;
			await goto(`/${code}/document/${row.id}`);
			done();
		} catch (error) {
			fault = sentenceOf(error);
		} finally {
			busy = false;
		}
	}
</script>

<Dialog bind:open title="Edit {row.number} together">
	<div class="space-y-3">
		<p>
			{ON_SCREEN[kind].says}
			{row.label} stays as the file it is; every hand-in makes a new version of the {kind}.
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
			<button class="button button-act" disabled={!read || busy} onclick={begin}>Edit together</button>
		</div>
	</div>
</Dialog>
