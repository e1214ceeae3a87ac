<script lang="ts">
	import Dialog from './Dialog.svelte';
	import Field from './Field.svelte';
	import Form from './Form.svelte';

	/** Asks for a reason (or a note) before an act, says the consequence, and shows what went wrong in place. */
	let {
		open = $bindable(false),
		title,
		consequence,
		label = 'Reason',
		button,
		dangerous = false,
		required = true,
		act
	}: {
		open: boolean;
		title: string;
		consequence: string;
		label?: string;
		button: string;
		dangerous?: boolean;
		required?: boolean;
		act: (reason: string) => Promise<unknown>;
	} = $props();

	let reason = $state('');
	async function submit() {
		await act(reason);
		open = false;
	}
</script>

<Dialog bind:open {title}>
	<Form act={submit} {button} {dangerous} cancel={() => (open = false)}>
		<p>{consequence}</p>
		<Field {label} name="reason" bind:value={reason} lines={3} {required} />
	</Form>
</Dialog>
