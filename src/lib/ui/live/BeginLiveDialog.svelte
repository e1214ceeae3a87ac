<script lang="ts">
	import Select from '../kit/Select.svelte';
	import { onMount, untrack } from 'svelte';
	import { goto } from '$app/navigation';
	import type { LiveKind } from '../../core/live/live';
	import { cupboard } from '../../client/cupboard';
	import Dialog from '../kit/Dialog.svelte';
	import Field from '../kit/Field.svelte';
	import Form from '../kit/Form.svelte';
	import { ON_SCREEN } from './kinds';

	/** Begins something in a folder that several edit at once; its number is proposed as for a file. */
	let {
		open = $bindable(false),
		kind,
		place,
		code
	}: {
		open: boolean;
		kind: LiveKind;
		place: { id: string; name: string };
		code: string;
	} = $props();
	const { says, anew } = untrack(() => ON_SCREEN[kind]);
	let chosen = $state('0');
	let number = $state('');
	let title = $state('');

	onMount(() => {
		void cupboard
			.proposals({ place: place.id, files: [anew!.file] })
			.then(({ proposals }) => (number = proposals[0]?.number ?? ''))
			.catch(() => {});
	});
	async function begin() {
		const { id } = await anew!.add({ folder: place.id, number, title }, Number(chosen));
		open = false;
		await goto(`/${code}/document/${id}`);
	}
</script>

<Dialog bind:open title="Begin a {kind} in {place.name} that is edited together">
	<Form act={begin} button="Begin" cancel={() => (open = false)}>
		<p class="text-ink-2">{says} Handing in makes versions.</p>
		<Field label="Number" name="number" bind:value={number} required maxlength={60} mono />
		<Field label="Title" name="title" bind:value={title} required maxlength={180} />
		{#if anew?.with}<label class="block"
				><span class="label">{anew.with.label}</span><Select
					choices={anew.with.names.map((name, i) => ({ value: String(i), label: name }))}
					bind:value={chosen}
				/></label
			>{/if}
	</Form>
</Dialog>
