<script lang="ts">
	import Form from '../kit/Form.svelte';
	import { personOf, type Pickable, type Picked } from '../kit/person';
	import PersonPicker from '../kit/PersonPicker.svelte';
	import { cupboard } from '../../client/cupboard';
	import { attempt } from '../platform/api';
	import Dialog from '../kit/Dialog.svelte';

	/** Chooses a person to look as. Everything then shows as they would see it, and nothing can be changed. */
	let { project, to }: { project: string; to: string } = $props();
	let open = $state(false);
	let people = $state.raw<Pickable[]>([]);
	let chosen = $state.raw<Picked | null>(null);

	async function show() {
		open = true;
		const answer = await attempt(() => cupboard.mayTryAs({ project }));
		people = answer?.people.map(personOf) ?? [];
	}
	async function begin() {
		const answer = await cupboard.tryAs({ project, person: (chosen as Pickable).id });
		document.cookie = `cupboard-try=${answer.project}.${answer.person}; path=/; samesite=lax`;
		// Everything on screen belongs to oneself until now, so the page begins anew.
		location.assign(to);
	}
</script>

<button class="button" onclick={show}>Try as…</button>
<Dialog bind:open title="Try as somebody else">
	<Form act={begin} button="Look as them" cancel={() => (open = false)}>
		<p class="text-ink-2">
			You see shelves, folders and finds exactly as the person would. Nothing can be changed meanwhile, and
			the trail notes that you looked.
		</p>
		<PersonPicker label="Person" known={people} bind:value={chosen} required />
	</Form>
</Dialog>
