<script lang="ts">
	import { getContext } from 'svelte';
	import { FORM_FAULTS, type FormFaults } from './form';

	/** A text under its label, on one line or several, with what is meant below it and what is wrong with it. */
	let {
		label,
		name,
		value = $bindable(''),
		hint = '',
		lines = 1,
		required = false,
		maxlength = 2000,
		placeholder = '',
		mono = false
	}: {
		label: string;
		/** The field of the act, at which a fault of it stands. */
		name: string;
		value?: string;
		hint?: string;
		/** More than one makes it a field of several lines. */
		lines?: number;
		required?: boolean;
		maxlength?: number;
		placeholder?: string;
		mono?: boolean;
	} = $props();

	const id = $props.id();
	const faults = getContext<FormFaults | undefined>(FORM_FAULTS);
	const fault = $derived(faults?.at[name] ?? '');
	const about = $derived(
		[hint && `${id}-hint`, fault && `${id}-fault`].filter(Boolean).join(' ') || undefined
	);
</script>

<div data-field={name}>
	<label class="label" for={id}>{label}</label>
	{#if lines > 1}<textarea
			{id}
			class="field {mono ? 'font-mono' : ''}"
			rows={lines}
			bind:value
			{required}
			{maxlength}
			{placeholder}
			aria-describedby={about}
			aria-invalid={fault !== ''}></textarea>
	{:else}<input
			{id}
			class="field {mono ? 'font-mono' : ''}"
			bind:value
			{required}
			{maxlength}
			{placeholder}
			aria-describedby={about}
			aria-invalid={fault !== ''}
		/>{/if}
	{#if hint}<p id="{id}-hint" class="text-[12px] text-ink-2">{hint}</p>{/if}
	{#if fault}<p id="{id}-fault" role="alert" class="text-fault">{fault}</p>{/if}
</div>
