<script lang="ts">
	import { onMount } from 'svelte';
	import { goto } from '$app/navigation';
	import type { DocumentRow } from '../../core/documents/rows';
	import { Unreadable } from '../../formats/package/fault';
	import { CallError } from '../../client/call';
	import { addressOf, cupboard } from '../../client/cupboard';
	import { sendFile, sentenceOf, uploadAddress } from '../platform/api';
	import Dialog from '../kit/Dialog.svelte';
	import type { LiveKind } from '../../core/live/live';
	import { notKept } from '../../formats/tables/not-kept';
	import { readTables } from '../viewers/read-tables';
	import type { Kept } from './import-text';

	/** Makes a file a live document: says what of the file cannot come along, then begins. */
	let {
		open = $bindable(false),
		row,
		code,
		kind,
		done
	}: { open: boolean; row: DocumentRow; code: string; kind: LiveKind; done: () => void } = $props();
	/** What a live document is begun with, and what of the file it cannot hold. */
	interface Begin {
		/** Begins with what was read. Raises what the server answers. */
		begin: () => Promise<unknown>;
		losses: string[];
	}
	let read = $state.raw<Begin | null>(null);
	let fault = $state('');
	let busy = $state(false);
	const SAYS: Record<LiveKind, string> = {
		text: 'Everybody with Work writes in one text at one time, with Remark one suggests.',
		schedule:
			'Everybody with Work fills in one schedule at one time; what breaks a rule of its column says so.',
		drawing:
			'Everybody with Work edits one drawing at one time, each department on its own layers. What nobody touches stays in the file as it is.'
	};

	async function keepPicture(file: File): Promise<Kept> {
		const { width } = await createImageBitmap(file);
		return { ...(await sendFile(uploadAddress(code, file.name), file, () => {}).done), width };
	}
	async function beginning(): Promise<Begin> {
		const { id, label, mediaType } = row;
		const at = { document: id, base: label };
		if (kind === 'drawing') return { begin: () => cupboard.workDrawingLive(at), losses: [] };
		const response = await fetch(addressOf('versionFile', { document: id, label }));
		if (!response.ok) throw new Unreadable('The file could not be fetched.');
		const bytes = await response.arrayBuffer();
		if (kind === 'schedule') {
			const { scheduleFrom } = await import('../../core/schedule/exchange');
			const tables = await readTables(bytes, mediaType);
			const { losses, ...schedule } = scheduleFrom(tables);
			if (!schedule.columns.length) throw new Unreadable('There is nothing on the first sheet of this file.');
			return {
				begin: () => cupboard.workScheduleLive({ ...at, schedule }),
				losses: [...notKept(tables.slice(0, 1)), ...losses]
			};
		}
		const { importText } = await import('./import-text');
		const { text, pictures, losses } = await importText(bytes, mediaType, keepPicture);
		return { begin: () => cupboard.workLive({ ...at, text: text.toJSON() as unknown, pictures }), losses };
	}
	onMount(() => {
		beginning()
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
			{SAYS[kind]}
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
