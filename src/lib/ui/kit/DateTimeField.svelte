<script lang="ts">
	import { timeTyped } from '../../core/time/typed';
	import DateField from './DateField.svelte';

	/** A day and a time of day, in a time zone that is named. Bound as `2026-11-27` and `17:00`. */
	let {
		label,
		day = $bindable(''),
		time = $bindable('17:00'),
		zone,
		required = false
	}: {
		label: string;
		day?: string;
		time?: string;
		/** The time zone that both are meant in. */
		zone: string;
		required?: boolean;
	} = $props();

	/** What is being typed; null when the field shows the time itself. */
	let typed = $state<string | null>(null);
	let field = $state<HTMLInputElement>();
	const fault = $derived(typed === null || timeTyped(typed) ? '' : 'Write a time, such as 17:00.');
	$effect(() => field?.setCustomValidity(fault));
	function type(event: Event & { currentTarget: HTMLInputElement }) {
		typed = event.currentTarget.value;
		time = timeTyped(typed) ?? time;
	}
</script>

<fieldset>
	<legend class="label">{label}</legend>
	<div class="flex flex-wrap items-center gap-2">
		<DateField inline label="{label}: day" bind:value={day} {required} class="w-[150px]" />
		<input
			bind:this={field}
			class="field !w-[80px] font-mono"
			aria-label="{label}: time"
			aria-invalid={fault !== ''}
			autocomplete="off"
			value={typed ?? time}
			disabled={day === ''}
			oninput={type}
			onblur={() => !fault && (typed = null)}
		/>
		<span class="text-[12px] text-ink-2">{zone.replaceAll('_', ' ')} time</span>
	</div>
</fieldset>
