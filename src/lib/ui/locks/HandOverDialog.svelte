<script lang="ts">
	import Select from '../kit/Select.svelte';
	import { onMount } from 'svelte';
	import { allows, type Level } from '../../core/access/levels';
	import type { ReachRow } from '../../core/access/rows';
	import { cupboard } from '../../client/cupboard';
	import { attempt, sentenceOf } from '../platform/api';
	import Dialog from '../kit/Dialog.svelte';

	/** Hands a lock over to somebody who may work on the document. */
	let {
		open = $bindable(false),
		document,
		number,
		done
	}: { open: boolean; document: string; number: string; done: () => void } = $props();
	let people = $state.raw<ReachRow[]>([]);
	let to = $state('');
	let note = $state('');
	let fault = $state('');

	onMount(() => {
		void attempt(async () => {
			const answer = await cupboard.access({ place: document });
			people = answer.people.filter((p) => allows(p.level as Level, 'work'));
		});
	});
	async function hand(event: SubmitEvent) {
		event.preventDefault();
		fault = '';
		try {
			await cupboard.handOverLock({ document, to, note });
			open = false;
			done();
		} catch (error) {
			fault = sentenceOf(error);
		}
	}
</script>

<Dialog bind:open title="Hand {number} over">
	<form onsubmit={hand} class="space-y-3">
		<p class="text-ink-2">
			The lock goes on without a gap; nobody can take it in between. They are told at once.
		</p>
		<label class="block"
			><span class="label">To</span><Select
				choices={people.map((p) => ({ value: p.person, label: p.name }))}
				bind:value={to}
				placeholder="Choose somebody who may work here"
				required
			/></label
		>
		<label class="block"
			><span class="label">What they should know</span><textarea
				class="field"
				bind:value={note}
				maxlength="2000"></textarea></label
		>
		{#if fault}<p role="alert" class="text-fault">{fault}</p>{/if}
		<div class="flex justify-end gap-2">
			<button type="button" class="button" onclick={() => (open = false)}>Cancel</button><button
				class="button button-act">Hand over</button
			>
		</div>
	</form>
</Dialog>
