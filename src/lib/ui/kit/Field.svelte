<script lang="ts" generics="Value extends string | number | null | undefined">
	import { getContext } from 'svelte';
	import { FORM_FAULTS, type FormFaults } from './form';

	/** A text or figure under its label, on one line or several, with what is meant below it and what is wrong with it. */
	let {
		label,
		name,
		value = $bindable(),
		type = 'text',
		hint = '',
		lines = 1,
		required = false,
		minlength,
		maxlength = 2000,
		min,
		max,
		step,
		pattern,
		autocomplete,
		placeholder = '',
		mono = false,
		left
	}: {
		label: string;
		/** The field of the act, at which a fault of it stands. */
		name: string;
		value?: Value;
		type?: 'text' | 'email' | 'password' | 'number' | 'search';
		hint?: string;
		/** More than one makes it a field of several lines. */
		lines?: number;
		required?: boolean;
		minlength?: number;
		maxlength?: number;
		/** Bounds of a figure. */
		min?: number;
		max?: number;
		step?: number | 'any';
		/** What it must look like, as a regular expression. */
		pattern?: string;
		autocomplete?: 'off' | 'email' | 'name' | 'current-password' | 'new-password' | 'one-time-code';
		placeholder?: string;
		mono?: boolean;
		/** Called when it is left with something else in it, for what is kept as one goes. */
		left?: () => void;
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
			onchange={left}
			aria-describedby={about}
			aria-invalid={fault !== ''}></textarea>
	{:else}<input
			{id}
			{type}
			class="field {mono ? 'font-mono' : ''}"
			bind:value
			{required}
			{minlength}
			maxlength={type === 'number' ? undefined : maxlength}
			{min}
			{max}
			{step}
			{pattern}
			{autocomplete}
			inputmode={autocomplete === 'one-time-code' ? 'numeric' : undefined}
			{placeholder}
			onchange={left}
			aria-describedby={about}
			aria-invalid={fault !== ''}
		/>{/if}
	{#if hint}<p id="{id}-hint" class="text-[12px] text-ink-2">{hint}</p>{/if}
	{#if fault}<p id="{id}-fault" role="alert" class="text-fault">{fault}</p>{/if}
</div>
