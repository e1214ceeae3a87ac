<script lang="ts">
	import { cupboard } from '../../client/cupboard';
	import Dialog from '../kit/Dialog.svelte';
	import Field from '../kit/Field.svelte';
	import Form from '../kit/Form.svelte';
	import { refresh } from '../platform/refresh';

	/** Keeps what the register is narrowed to under a name. */
	let {
		open = $bindable(false),
		project,
		query,
		controller
	}: { open: boolean; project: string; query: string; controller: boolean } = $props();
	let name = $state('');
	let shared = $state(false);
</script>

<Dialog bind:open title="Keep this choice">
	<Form
		act={() => cupboard.keepRegisterChoice({ project, name, query, shared })}
		done={async () => {
			open = false;
			await refresh('cupboard:register');
		}}
		button="Keep choice"
		cancel={() => (open = false)}
	>
		<Field
			label="Name"
			name="name"
			bind:value={name}
			required
			hint="such as: due this month, marine works; the same name again replaces it"
		/>
		{#if controller}<label class="flex items-center gap-2"
				><input type="checkbox" class="accent-act" bind:checked={shared} />For everybody in the project</label
			>{/if}
	</Form>
</Dialog>
