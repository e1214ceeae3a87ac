<script lang="ts">
	import type { Known } from '../../core/access/invite';
	import { mailIn } from '../../core/words/list-line';
	import { plural } from '../platform/words';
	import Combobox from './Combobox.svelte';

	/**
	 * Somebody, found by typing: a person, and where they are among `known` a department, group or everyone; with
	 * `newcomers` also somebody not known yet, by mail address. Each pick is told, and the field is empty for the next.
	 */
	let {
		label,
		inline = false,
		known,
		newcomers = false,
		pick,
		placeholder = 'Type a name'
	}: {
		label: string;
		inline?: boolean;
		known: readonly Known[];
		newcomers?: boolean;
		pick: (one: Known | { email: string }) => void;
		placeholder?: string;
	} = $props();

	const GROUPS: Record<Known['kind'], string> = {
		person: 'People',
		department: 'Departments',
		group: 'Groups',
		everyone: 'Everyone'
	};
	const keyOf = (one: Known) => `${one.kind} ${one.id}`;
	const ORDER = Object.keys(GROUPS);
	const choices = $derived(
		known
			.toSorted((a, b) => ORDER.indexOf(a.kind) - ORDER.indexOf(b.kind))
			.map((one) => ({
				value: keyOf(one),
				label: one.name,
				detail: [
					one.kind === 'person' ? one.email : plural(one.people, 'person', 'people'),
					...(one.outside ? ['outside'] : [])
				].join(', '),
				group: GROUPS[one.kind]
			}))
	);
	/** A choice for an address that nobody known has. */
	function newcomer(typed: string) {
		const email = mailIn(typed);
		return email && !known.some((one) => one.email === email)
			? { value: email, label: email, detail: 'new here', group: 'By mail address' }
			: null;
	}
</script>

<Combobox
	{label}
	{inline}
	{choices}
	{placeholder}
	made={newcomers ? newcomer : undefined}
	choose={(value) => pick(known.find((one) => keyOf(one) === value) ?? { email: value })}
/>
