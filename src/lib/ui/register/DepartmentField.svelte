<script lang="ts">
	import Select from '../kit/Select.svelte';

	/** Whose a deliverable is: one of the departments, or nobody's but the project's own. */
	let {
		departments,
		stays = false,
		value = $bindable()
	}: {
		departments: readonly { id: string; name: string }[];
		/** It can be left as it is, whatever that is; then the value is undefined. */
		stays?: boolean;
		/** Id of the department; null for the project's own. */
		value: string | null | undefined;
	} = $props();

	const id = $props.id();
	/** What stands for leaving it as it is, which is not the same as nothing. */
	const STAYS = 'stays';
	const choices = $derived([
		...(stays ? [{ value: STAYS, label: 'stays as it is' }] : []),
		{ value: '', label: 'the project’s own' },
		...departments.map((one) => ({ value: one.id, label: one.name }))
	]);
</script>

<div data-field="department">
	<label class="label" for={id}>Department</label>
	<Select
		{id}
		{choices}
		bind:value={
			() => (value === undefined ? STAYS : (value ?? '')),
			(to) => (value = to === STAYS ? undefined : to || null)
		}
	/>
</div>
