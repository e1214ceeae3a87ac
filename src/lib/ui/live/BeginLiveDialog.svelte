<script lang="ts">
	import Select from '../kit/Select.svelte';
	import { onMount } from 'svelte';
	import { goto } from '$app/navigation';
	import { BEGINNINGS } from '../../core/schedule/beginnings';
	import { cupboard } from '../../client/cupboard';
	import { sentenceOf } from '../platform/api';
	import Dialog from '../kit/Dialog.svelte';

	/** Begins a text or a schedule in a folder that several edit at once; its number is proposed as for a file. */
	let {
		open = $bindable(false),
		kind,
		place,
		code
	}: {
		open: boolean;
		kind: 'text' | 'schedule';
		place: { id: string; name: string };
		code: string;
	} = $props();
	let beginning = $state(0);
	let number = $state('');
	let title = $state('');
	let fault = $state('');
	let busy = $state(false);

	onMount(() => {
		const files = [kind === 'text' ? 'text.docx' : 'schedule.xlsx'];
		void cupboard
			.proposals({ place: place.id, files })
			.then(({ proposals }) => (number = proposals[0]?.number ?? ''))
			.catch(() => {});
	});
	async function submit(event: SubmitEvent) {
		event.preventDefault();
		busy = true;
		fault = '';
		try {
			const what = { folder: place.id, number, title };
			const { id } =
				kind === 'text'
					? await cupboard.addLiveText(what)
					: await cupboard.addLiveSchedule({
							...what,
							schedule: { columns: BEGINNINGS[beginning]!.columns, rows: [] }
						});
			open = false;
			await goto(`/${code}/document/${id}`);
		} catch (error) {
			fault = sentenceOf(error);
		} finally {
			busy = false;
		}
	}
</script>

<Dialog bind:open title="Begin a live {kind} in {place.name}">
	<form class="space-y-3" onsubmit={submit}>
		<p class="text-ink-2">
			{kind === 'text'
				? 'Everybody with Work here writes in it at one time; with Remark one suggests.'
				: 'Everybody with Work here fills it in at one time.'} Handing in makes versions.
		</p>
		<label class="block"
			><span class="label">Number</span><input
				class="field font-mono"
				bind:value={number}
				required
				maxlength="60"
			/></label
		>
		<label class="block"
			><span class="label">Title</span><input
				class="field"
				bind:value={title}
				required
				maxlength="180"
			/></label
		>
		{#if kind === 'schedule'}<label class="block"
				><span class="label">Begin with the columns of</span><Select
					choices={BEGINNINGS.map((one, i) => ({ value: String(i), label: one.name }))}
					value={String(beginning)}
					choose={(i) => (beginning = Number(i))}
				/></label
			>{/if}
		{#if fault}<p role="alert" class="text-fault">{fault}</p>{/if}
		<div class="flex justify-end gap-2">
			<button type="button" class="button" onclick={() => (open = false)}>Cancel</button>
			<button class="button button-act" disabled={busy}>Begin</button>
		</div>
	</form>
</Dialog>
