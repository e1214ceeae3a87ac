<script lang="ts">
	import { onMount } from 'svelte';
	import { cupboard } from '../../client/cupboard';
	import { attempt } from '../platform/api';
	import Combobox from './Combobox.svelte';

	/** A shelf or folder where one may work, found by typing the beginnings of the names on the way to it. */
	let {
		label,
		project,
		place = $bindable(null),
		without = [],
		picked
	}: {
		label: string;
		project: string;
		place: { id: string; name: string } | null;
		/** Folders that are no choice, nor is what lies in them: nothing moves into itself. */
		without?: readonly string[];
		/** Told when another is chosen. */
		picked?: (place: { id: string; name: string }) => void;
	} = $props();

	let known = $state.raw<{ id: string; inside: string[]; way: string }[]>([]);
	onMount(() => {
		void attempt(async () => {
			known = (await cupboard.folders({ project })).folders;
		});
	});
	const choices = $derived(
		known
			.filter((one) => !without.some((id) => id === one.id || one.inside.includes(id)))
			.map((one) => ({ value: one.id, label: one.way }))
	);
	function choose(id: string) {
		place = { id, name: choices.find((one) => one.value === id)?.label ?? '' };
		picked?.(place);
	}
</script>

<Combobox
	{label}
	{choices}
	bind:value={() => place?.id ?? '', choose}
	placeholder="A shelf or folder"
	required
/>
