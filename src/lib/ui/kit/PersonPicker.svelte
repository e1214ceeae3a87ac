<script lang="ts">
	import { whoIsAway } from './away';
	import type { Known } from '../../core/access/invite';
	import { mailIn } from '../../core/words/list-line';
	import { plural } from '../platform/words';
	import Combobox from './Combobox.svelte';
	import { isKnown, type Pickable, type Picked } from './person';

	/**
	 * Somebody, found by typing: a person, and where they are among `known` a department, group or everyone; with
	 * `newcomers` also somebody not known yet, by mail address. Who is picked is bound as `value`; with `pick` each is only
	 * told, and the field is empty for the next.
	 */
	let {
		label,
		inline = false,
		known,
		newcomers = false,
		pick,
		value = $bindable(null),
		nobody = '',
		required = false,
		placeholder = 'Type a name'
	}: {
		label: string;
		inline?: boolean;
		known: readonly Pickable[];
		newcomers?: boolean;
		pick?: (one: Picked) => void;
		value?: Picked | null;
		/** Words for picking nobody, where that can be chosen. */
		nobody?: string;
		required?: boolean;
		placeholder?: string;
	} = $props();

	const away = whoIsAway();
	const GROUPS: Record<Known['kind'], string> = {
		person: 'People',
		department: 'Departments',
		group: 'Groups',
		everyone: 'Everyone'
	};
	const ORDER = Object.keys(GROUPS);
	const NOBODY = 'nobody';
	const keyOf = (one: Picked) => (isKnown(one) ? `${one.kind} ${one.id}` : one.email);
	const choices = $derived([
		...(nobody ? [{ value: NOBODY, label: nobody }] : []),
		...known
			.toSorted((a, b) => ORDER.indexOf(a.kind) - ORDER.indexOf(b.kind))
			.map((one) => ({
				value: keyOf(one),
				label: one.name,
				detail: [
					// First, since the end of a long line is cut.
					one.kind === 'person' && away().get(one.id),
					one.kind === 'person' ? one.email : one.people && plural(one.people, 'person', 'people'),
					one.outside && 'outside',
					one.note
				]
					.filter(Boolean)
					.join(', '),
				group: GROUPS[one.kind]
			})),
		...(value && !isKnown(value) ? [byMail(value.email)] : [])
	]);
	function byMail(email: string) {
		return { value: email, label: email, detail: 'new here', group: 'By mail address' };
	}
	/** A choice for an address that nobody known has. */
	function newcomer(typed: string) {
		const email = mailIn(typed);
		return email && !choices.some((one) => one.value === email) && !known.some((one) => one.email === email)
			? byMail(email)
			: null;
	}
	const found = (key: string): Picked | null =>
		key === NOBODY ? null : (known.find((one) => keyOf(one) === key) ?? { email: key });
</script>

{#if pick}<Combobox
		{label}
		{inline}
		{choices}
		{placeholder}
		made={newcomers ? newcomer : undefined}
		choose={(key) => pick(found(key)!)}
	/>{:else}<Combobox
		{label}
		{inline}
		{choices}
		{placeholder}
		{required}
		made={newcomers ? newcomer : undefined}
		bind:value={() => (value ? keyOf(value) : nobody ? NOBODY : ''), (key) => (value = found(key))}
	/>{/if}
