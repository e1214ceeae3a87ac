<script lang="ts">
	import { page } from '$app/state';
	import type { AnswerOf } from '../../client/cupboard';
	import { plusWorkingDays, workingDaysWords } from '../../core/time/working-days';
	import DateField from '../kit/DateField.svelte';
	import { projectDay } from '../platform/project-day';

	/** The day by which a reply is asked, chosen as a day or in working days of the project (G7). */
	let { label, value = $bindable('') }: { label: string; value: string } = $props();
	/** What replies are usually given, in working days. */
	const USUAL = [5, 10, 15];
	const calendar = $derived((page.data.frame as AnswerOf<'projectFrame'>).project.workCalendar);
	const today = projectDay();
</script>

<div>
	<DateField {label} bind:value />
	<p class="mt-0.5 flex flex-wrap gap-x-2 text-[12px] text-ink-2">
		{#if value}<span>{workingDaysWords(today, value, calendar)}</span
			>{:else}in{#each USUAL as days (days)}<button
					type="button"
					class="link"
					aria-label="{label} in {days} working days"
					onclick={() => (value = plusWorkingDays(today, days, calendar))}>{days}</button
				>{/each}working days{/if}
	</p>
</div>
