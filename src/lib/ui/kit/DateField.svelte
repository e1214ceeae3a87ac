<script lang="ts">
	import { parseDate } from '@internationalized/date';
	import CalendarDays from '@lucide/svelte/icons/calendar-days';
	import ChevronLeft from '@lucide/svelte/icons/chevron-left';
	import ChevronRight from '@lucide/svelte/icons/chevron-right';
	import { Calendar, Popover } from 'bits-ui';
	import { dayWords } from '../../core/time/days';
	import { dayTyped } from '../../core/time/typed';
	import { projectDay } from '../platform/project-day';

	/**
	 * A day, typed as people write it or chosen from a calendar, under its label. Bound as `2026-11-27`, and empty where
	 * there is none.
	 */
	let {
		label,
		inline = false,
		value = $bindable(''),
		choose,
		min,
		required = false,
		disabled = false,
		class: more = ''
	}: {
		label: string;
		/** The label is for screen readers only. */
		inline?: boolean;
		value?: string;
		/** Is told the day; with it, the field shows what the value becomes. */
		choose?: (day: string) => void;
		/** The first day that can be chosen. */
		min?: string;
		required?: boolean;
		disabled?: boolean;
		/** More of its look, such as its width. */
		class?: string;
	} = $props();

	const id = $props.id();
	const today = projectDay();
	/** What is being typed; null when the field shows the day itself. */
	let typed = $state<string | null>(null);
	let open = $state(false);
	let field = $state<HTMLInputElement>();
	const text = $derived(typed ?? (value ? dayWords(value, today) : ''));
	const fault = $derived.by(() => {
		if (text.trim() === '') return '';
		const day = typed === null ? value : dayTyped(typed, today);
		if (!day) return 'Write a day, such as 27 Nov or 2026-11-27.';
		return min && day < min ? `Choose ${dayWords(min, today)} or later.` : '';
	});
	$effect(() => field?.setCustomValidity(fault));

	function set(day: string) {
		if (day === value) return;
		if (choose) choose(day);
		else value = day;
	}
	function type(event: Event & { currentTarget: HTMLInputElement }) {
		typed = event.currentTarget.value;
		const day = dayTyped(typed, today);
		// Who only looks at what is typed is told when it is settled; a bound value follows.
		if (!choose && (day || typed.trim() === '')) set(day ?? '');
	}
	function settle() {
		if (typed === null) return;
		const day = typed.trim() === '' ? '' : dayTyped(typed, today);
		if (day === null) return;
		set(day);
		typed = null;
	}
	const step = 'grid h-7 w-7 place-items-center hover:bg-film';
</script>

<div class={more}>
	{#if !inline}<label class="label" for={id}>{label}</label>{/if}
	<span class="relative flex">
		<input
			bind:this={field}
			{id}
			class="field pr-8"
			type="text"
			autocomplete="off"
			aria-label={inline ? label : undefined}
			aria-invalid={fault !== ''}
			placeholder="e.g. 27 Nov"
			value={text}
			{required}
			{disabled}
			oninput={type}
			onblur={settle}
			onkeydown={(event) => event.key === 'Enter' && settle()}
		/>
		<Popover.Root bind:open>
			<Popover.Trigger
				class="absolute inset-y-0 right-0 grid w-8 place-items-center text-ink-2 hover:text-ink"
				aria-label="Choose a day: {label}"
				{disabled}><CalendarDays size={15} aria-hidden="true" /></Popover.Trigger
			>
			<Popover.Portal>
				<Popover.Content class="z-50 border border-ink bg-sheet p-2 shadow-lg" sideOffset={2} align="end">
					<Calendar.Root
						type="single"
						value={value ? parseDate(value) : undefined}
						placeholder={parseDate(value || min || today)}
						minValue={min ? parseDate(min) : undefined}
						onValueChange={(day) => {
							typed = null;
							if (day) set(day.toString());
							open = false;
						}}
						weekStartsOn={1}
						weekdayFormat="short"
						locale="en-GB"
						fixedWeeks
					>
						{#snippet children({ months, weekdays })}
							<Calendar.Header class="flex items-center justify-between">
								<Calendar.PrevButton class={step}
									><ChevronLeft size={16} aria-hidden="true" /></Calendar.PrevButton
								>
								<Calendar.Heading class="font-semibold" />
								<Calendar.NextButton class={step}
									><ChevronRight size={16} aria-hidden="true" /></Calendar.NextButton
								>
							</Calendar.Header>
							{#each months as month (month.value)}
								<Calendar.Grid>
									<Calendar.GridHead
										><Calendar.GridRow
											>{#each weekdays as day (day)}<Calendar.HeadCell
													class="w-8 py-1 text-center text-[11px] font-normal text-ink-2"
													>{day.slice(0, 2)}</Calendar.HeadCell
												>{/each}</Calendar.GridRow
										></Calendar.GridHead
									>
									<Calendar.GridBody>
										{#each month.weeks as week, i (i)}<Calendar.GridRow
												>{#each week as date (date)}<Calendar.Cell {date} month={month.value} class="p-0"
														><Calendar.Day
															class="grid h-8 w-8 cursor-pointer place-items-center hover:bg-film data-disabled:cursor-default data-disabled:text-rule data-outside-month:text-ink-2 data-selected:bg-frame data-selected:text-on-frame data-today:font-bold"
														/></Calendar.Cell
													>{/each}</Calendar.GridRow
											>{/each}
									</Calendar.GridBody>
								</Calendar.Grid>
							{/each}
						{/snippet}
					</Calendar.Root>
				</Popover.Content>
			</Popover.Portal>
		</Popover.Root>
	</span>
</div>
