<script lang="ts">
	import { cupboard } from '../../client/cupboard';
	import Dialog from '../kit/Dialog.svelte';
	import Field from '../kit/Field.svelte';
	import Form from '../kit/Form.svelte';
	import { toast } from '../kit/toast';
	import { plural } from '../platform/words';

	/** Puts documents in a release by a pasted list of their numbers; lines that name none stay to be looked at. */
	let {
		open = $bindable(false),
		release,
		changed
	}: { open: boolean; release: string; changed: () => Promise<void> } = $props();

	let list = $state('');
	let unknown = $state.raw<string[]>([]);

	async function submit() {
		const said = await cupboard.addListed({ release, list });
		toast.success(
			`${plural(said.added, 'document')} added${said.before ? `, ${said.before} in it before` : ''}.`
		);
		await changed();
		unknown = said.unknown;
		if (unknown.length) list = unknown.join('\n');
		else open = false;
	}
</script>

<Dialog bind:open title="Add by a list of numbers">
	<Form act={submit} button="Add documents" cancel={() => (open = false)} disabled={!list.trim()}>
		<Field
			label="A line for each document, as it stands in a sheet or a mail"
			name="list"
			bind:value={list}
			lines={8}
			mono
			required
		/>
		{#if unknown.length}<p class="border-l-4 border-lock bg-lock-soft px-3 py-2" role="status">
				{unknown.length === 1 ? 'This line names' : `These ${unknown.length} lines name`} no document of the project.
				Mend {unknown.length === 1 ? 'it' : 'them'}, or leave {unknown.length === 1 ? 'it' : 'them'}.
			</p>{/if}
	</Form>
</Dialog>
