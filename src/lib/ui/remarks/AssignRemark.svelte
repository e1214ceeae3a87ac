<script lang="ts">
	import DateField from '../kit/DateField.svelte';
	import Select from '../kit/Select.svelte';
	import { onMount } from 'svelte';
	import type { Mention } from '../../core/remarks/remarks';
	import { cupboard } from '../../client/cupboard';
	import type { Assigned } from './remarks.svelte';

	/** Chooses who settles a remark, of those who may look at its document, and by when. */
	let {
		document,
		assigned = $bindable(),
		needed = false
	}: { document: string; assigned: Assigned; needed?: boolean } = $props();

	let people = $state.raw<Mention[]>([]);
	let departments = $state.raw<Mention[]>([]);
	const chosen = $derived(assigned.assign ? `${assigned.assign.kind}:${assigned.assign.id}` : '');

	onMount(() => {
		void cupboard
			.mentionable({ document })
			.then((found) => ([people, departments] = [found.people, found.departments]))
			.catch(() => {});
	});
	function choose(value: string) {
		const [kind, id] = value.split(':') as ['person' | 'department', string];
		assigned = value ? { ...assigned, assign: { kind, id } } : {};
	}
</script>

<div class="flex flex-wrap gap-2">
	<label class="min-w-0 flex-1"
		><span class="label">Who settles it</span>
		<Select
			choices={[
				...(needed ? [] : [{ value: '', label: 'nobody in particular' }]),
				...departments.map((one) => ({
					value: `department:${one.id}`,
					label: one.name,
					group: 'Departments'
				})),
				...people.map((one) => ({ value: `person:${one.id}`, label: one.name, group: 'People' }))
			]}
			value={chosen}
			{choose}
			placeholder="choose"
			required={needed}
		/></label
	>
	{#if assigned.assign}<DateField
			class="w-[130px]"
			label="By"
			value={assigned.due ?? ''}
			choose={(day) => (assigned = { ...assigned, due: day || undefined })}
		/>{/if}
</div>
