<script lang="ts">
	import { SCHEDULE_FORMATS, scheduleLosses, type ScheduleFormat } from '../../core/schedule/exchange';
	import type { Schedule } from '../../core/schedule/column';
	import TakeDialog from './TakeDialog.svelte';

	/** Takes a live schedule as a file. */
	let {
		open = $bindable(false),
		document,
		number,
		schedule
	}: { open: boolean; document: string; number: string; schedule: Schedule } = $props();
	let format = $state<ScheduleFormat>('xlsx');
</script>

<TakeDialog
	bind:open
	bind:format
	{document}
	{number}
	what="schedule"
	formats={SCHEDULE_FORMATS.map((one) => [one, one.toUpperCase()])}
	losses={open ? scheduleLosses(schedule, format) : []}
/>
