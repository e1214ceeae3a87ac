<script lang="ts">
	import Combobox from '../kit/Combobox.svelte';
	import Field from '../kit/Field.svelte';
	import Form from '../kit/Form.svelte';
	import { onMount } from 'svelte';
	import { allows, type Level } from '../../core/access/levels';
	import type { ReachRow } from '../../core/access/rows';
	import { cupboard } from '../../client/cupboard';
	import { attempt } from '../platform/api';
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
	onMount(() => {
		void attempt(async () => {
			const answer = await cupboard.access({ place: document });
			people = answer.people.filter((p) => allows(p.level as Level, 'work'));
		});
	});
	async function hand() {
		await cupboard.handOverLock({ document, to, note });
		open = false;
		done();
	}
</script>

<Dialog bind:open title="Hand {number} over">
	<Form act={hand} button="Hand over" cancel={() => (open = false)}>
		<p class="text-ink-2">
			The lock goes on without a gap; nobody can take it in between. They are told at once.
		</p>
		<Combobox
			label="To"
			choices={people.map((p) => ({ value: p.person, label: p.name }))}
			bind:value={to}
			placeholder="Somebody who may work here"
			required
		/>
		<Field label="What they should know" name="note" bind:value={note} lines={3} />
	</Form>
</Dialog>
