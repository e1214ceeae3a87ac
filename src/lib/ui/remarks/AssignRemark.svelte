<script lang="ts">
	import DateField from '../kit/DateField.svelte';
	import { isKnown, type Pickable, type Picked } from '../kit/person';
	import PersonPicker from '../kit/PersonPicker.svelte';
	import { onMount } from 'svelte';
	import { cupboard } from '../../client/cupboard';
	import { mentionedOf } from './mentioned';
	import type { Assigned } from './remarks.svelte';

	/** Chooses who settles a remark, of those who may look at its document, and by when. */
	let {
		document,
		assigned = $bindable(),
		needed = false
	}: { document: string; assigned: Assigned; needed?: boolean } = $props();

	let known = $state.raw<Pickable[]>([]);
	const chosen = $derived(known.find((one) => one.id === assigned.assign?.id) ?? null);

	onMount(() => {
		void cupboard
			.mentionable({ document })
			.then((found) => (known = mentionedOf(found)))
			.catch(() => {});
	});
	function choose(one: Picked | null) {
		assigned =
			one && isKnown(one)
				? { ...assigned, assign: { kind: one.kind as 'person' | 'department', id: one.id } }
				: {};
	}
</script>

<div class="flex flex-wrap gap-2">
	<div class="min-w-0 flex-1">
		<PersonPicker
			label="Who settles it"
			{known}
			bind:value={() => chosen, choose}
			nobody={needed ? '' : 'nobody in particular'}
			required={needed}
		/>
	</div>
	{#if assigned.assign}<DateField
			class="w-[130px]"
			label="By"
			value={assigned.due ?? ''}
			choose={(day) => (assigned = { ...assigned, due: day || undefined })}
		/>{/if}
</div>
