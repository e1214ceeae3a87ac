<script lang="ts">
	import { cupboard } from '../../client/cupboard';
	import Dialog from '../kit/Dialog.svelte';
	import Field from '../kit/Field.svelte';
	import Form from '../kit/Form.svelte';
	import { toast } from '../kit/toast';
	import { plural } from '../platform/words';

	/** Keeps deliverables as a template: the like of them can be added again elsewhere. */
	let {
		open = $bindable(false),
		project,
		deliverables,
		done
	}: { open: boolean; project: string; deliverables: string[]; done: () => Promise<void> } = $props();
	let name = $state('');
</script>

<Dialog bind:open title="Keep {plural(deliverables.length, 'deliverable')} as a template">
	<Form
		act={async () => {
			await cupboard.keepTemplate({ project, name, deliverables });
			toast(`“${name}” is kept. Add from it under More.`);
		}}
		{done}
		button="Keep template"
		cancel={() => (open = false)}
	>
		<p class="text-ink-2">
			Kept are titles, weights, what the numbers say beside department and serial, and how many working days
			the planned days lie apart.
		</p>
		<Field
			label="Name"
			name="name"
			bind:value={name}
			required
			hint="such as: quay wall, detail design; the same name again replaces it"
		/>
	</Form>
</Dialog>
