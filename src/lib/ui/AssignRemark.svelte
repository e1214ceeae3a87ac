<script lang="ts">
	import { onMount } from 'svelte';
	import type { Mention } from '../core/remarks';
	import { call } from './api';
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
		void call<{ people: Mention[]; departments: Mention[] }>('GET', `/documents/${document}/mentionable`)
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
		<select
			class="field"
			value={chosen}
			onchange={(event) => choose(event.currentTarget.value)}
			required={needed}
		>
			<option value="">{needed ? 'choose' : 'nobody in particular'}</option>
			<optgroup label="Departments">
				{#each departments as one (one.id)}<option value="department:{one.id}">{one.name}</option>{/each}
			</optgroup>
			<optgroup label="People">
				{#each people as one (one.id)}<option value="person:{one.id}">{one.name}</option>{/each}
			</optgroup>
		</select></label
	>
	{#if assigned.assign}<label class="w-[130px]"
			><span class="label">By</span><input
				type="date"
				class="field"
				value={assigned.due ?? ''}
				onchange={(event) => (assigned = { ...assigned, due: event.currentTarget.value || undefined })}
			/></label
		>{/if}
</div>
