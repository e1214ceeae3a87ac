<script lang="ts">
	import { toast } from 'svelte-sonner';
	import { attempt, call, sentenceOf } from './api';
	import Dialog from './Dialog.svelte';

	/** Sorts a file that came in onto a shelf: folder, number and title, proposed from its name. */
	let {
		arrival,
		project,
		close,
		done
	}: {
		arrival: { id: string; place: string; fileName: string; sender: string };
		project: string;
		close: () => void;
		done: () => Promise<void>;
	} = $props();

	let folders = $state<{ id: string; way: string }[]>([]);
	// svelte-ignore state_referenced_locally
	let folder = $state(arrival.place);
	let number = $state('');
	let title = $state('');
	let note = $state('');
	/** The fields wait for the first proposal, so that it never lands in what somebody types. */
	let proposed = $state(false);
	let typed = false;
	let fault = $state('');

	$effect(() => {
		void attempt(async () => {
			folders = (await call<{ folders: typeof folders }>('GET', `/projects/${project}/folders`)).folders;
		});
	});
	$effect(() => {
		const asked = folder;
		const files = encodeURIComponent(JSON.stringify([arrival.fileName]));
		void call<{ proposals: { number: string; title: string }[] }>(
			'GET',
			`/places/${asked}/proposals?files=${files}`
		)
			.then(({ proposals }) => {
				// What somebody typed meanwhile stays.
				if (typed || asked !== folder) return;
				number = proposals[0]?.number ?? '';
				title = proposals[0]?.title ?? '';
			})
			.catch((error: unknown) => (fault = sentenceOf(error)))
			.finally(() => (proposed = true));
	});
	async function submit(event: SubmitEvent) {
		event.preventDefault();
		fault = '';
		try {
			await call('POST', `/places/${arrival.place}/arrivals/${arrival.id}/sorted`, {
				folder,
				number,
				title,
				note
			});
			toast.success(`${number} is on its shelf.`);
			close();
			await done();
		} catch (error) {
			fault = sentenceOf(error);
		}
	}
</script>

<Dialog bind:open={() => true, (open) => !open && close()} title="Sort in {arrival.fileName}">
	<form
		onsubmit={submit}
		oninput={(e) => (typed ||= (e.target as HTMLElement).tagName === 'INPUT')}
		class="space-y-3"
	>
		<label class="block"
			><span class="label">Folder</span><select class="field" bind:value={folder}
				>{#each folders as f (f.id)}<option value={f.id}>{f.way}</option>{/each}</select
			></label
		>
		<label class="block"
			><span class="label">Number</span><input
				class="field font-mono"
				bind:value={number}
				disabled={!proposed}
				required
			/></label
		>
		<label class="block"
			><span class="label">Title</span><input
				class="field"
				bind:value={title}
				disabled={!proposed}
				required
			/></label
		>
		<label class="block"
			><span class="label">Note</span><input
				class="field"
				placeholder="Received from {arrival.sender}"
				bind:value={note}
			/></label
		>
		{#if fault}<p role="alert" class="text-fault">{fault}</p>{/if}
		<div class="flex justify-end gap-2">
			<button type="button" class="button" onclick={close}>Cancel</button><button class="button button-act"
				>Sort in</button
			>
		</div>
	</form>
</Dialog>
