<script lang="ts">
	import Field from '../kit/Field.svelte';
	import Form from '../kit/Form.svelte';
	import { personOf, type Pickable, type Picked } from '../kit/person';
	import PersonPicker from '../kit/PersonPicker.svelte';
	import { onMount } from 'svelte';
	import { allows, type Level } from '../../core/access/levels';
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
	let people = $state.raw<Pickable[]>([]);
	let to = $state.raw<Picked | null>(null);
	let note = $state('');
	onMount(() => {
		void attempt(async () => {
			const answer = await cupboard.access({ place: document });
			people = answer.people
				.filter((p) => allows(p.level as Level, 'work'))
				.map(
					({ person, name, outside }) =>
						answer.known.find((k) => k.id === person) ?? personOf({ id: person, name, outside })
				);
		});
	});
	async function hand() {
		await cupboard.handOverLock({ document, to: (to as Pickable).id, note });
		open = false;
		done();
	}
</script>

<Dialog bind:open title="Hand {number} over">
	<Form act={hand} button="Hand over" cancel={() => (open = false)}>
		<p class="text-ink-2">
			The lock goes on without a gap; nobody can take it in between. They are told at once.
		</p>
		<PersonPicker
			label="To"
			known={people}
			bind:value={to}
			placeholder="Somebody who may work here"
			required
		/>
		<Field label="What they should know" name="note" bind:value={note} lines={3} />
	</Form>
</Dialog>
