<script lang="ts">
	import { levelChoices } from '../access/level-choices';
	import Field from '../kit/Field.svelte';
	import Form from '../kit/Form.svelte';
	import type { Level } from '../../core/access/levels';
	import Select from '../kit/Select.svelte';
	import { refreshAll } from '../platform/refresh';
	import { LEVELS } from '../../core/access/levels';
	import { cupboard } from '../../client/cupboard';
	import Dialog from '../kit/Dialog.svelte';

	/** Makes a shelf for a department; other departments reach it only where a level is chosen. */
	let {
		open = $bindable(false),
		project,
		departments
	}: { open: boolean; project: string; departments: { id: string; code: string; name: string }[] } = $props();
	let name = $state('');
	let department = $state('');
	let also = $state<Record<string, Level | ''>>({});

	async function make() {
		const others = Object.entries(also)
			.filter(([id, level]) => level && id !== department)
			.map(([id, level]) => ({ department: id, level: level as Level }));
		await cupboard.makeShelf({ project, name, department: department || null, also: others });
		name = '';
		also = {};
		open = false;
		await refreshAll();
	}
</script>

<Dialog bind:open title="New shelf">
	<Form act={make} button="Make shelf" cancel={() => (open = false)}>
		<label class="block"
			><span class="label">Owned by</span>
			<Select
				choices={[
					{ value: '', label: 'The project itself (controllers only, and whom you let in below)' },
					...departments.map((d) => ({
						value: d.id,
						label: `${d.code} ${d.name}: members Work, leads Manage`
					}))
				]}
				value={department}
				choose={(id) => {
					department = id;
					name ||= departments.find((d) => d.id === id)?.name ?? '';
				}}
			/>
		</label>
		<Field label="Name" name="name" bind:value={name} maxlength={180} required />
		<fieldset>
			<legend class="label">Other departments. Nobody else sees the shelf unless you say so.</legend>
			{#each departments.filter((d) => d.id !== department) as d (d.id)}
				<label class="flex items-center justify-between border-b border-rule-2 py-1"
					><span>{d.code} {d.name}</span>
					<Select
						choices={[{ value: '', label: 'no access' }, ...levelChoices(LEVELS.filter((l) => l !== 'drop'))]}
						bind:value={() => also[d.id] ?? '', (level) => (also[d.id] = level)}
						class="border border-rule bg-sheet px-1 py-0.5"
					/>
				</label>
			{/each}
		</fieldset>
	</Form>
</Dialog>
