<script lang="ts">
	import { untrack } from 'svelte';
	import { FARTHEST_REMINDER, reminderDays } from '../../core/releases/reminders';
	import { plusWorkingDays } from '../../core/time/working-days';
	import type { AnswerOf } from '../../client/cupboard';
	import Field from '../kit/Field.svelte';
	import { projectDay } from '../platform/project-day';
	import { dayText } from '../platform/words';
	import SettingsForm from './SettingsForm.svelte';

	/** Under whose name mails go out, and when recipients of releases are reminded. */
	let { project, more }: { project: AnswerOf<'projectFrame'>['project']; more: AnswerOf<'settings'> } =
		$props();
	let name = $state(untrack(() => more.mailSender.name));
	let replyTo = $state(untrack(() => more.mailSender.replyTo));

	type Side = keyof typeof more.reminders;
	const SIDES: { side: Side; label: string; hint: string }[] = [
		{ side: 'receipt', label: 'After the issue', hint: 'while receipt is not confirmed' },
		{ side: 'before', label: 'Before the reply is due', hint: 'while verdicts are missing' },
		{ side: 'after', label: 'After it was due', hint: 'until the answer comes' }
	];
	let written = $state<Record<Side, string>>(
		untrack(
			() =>
				Object.fromEntries(SIDES.map(({ side }) => [side, more.reminders[side].join(', ')])) as Record<
					Side,
					string
				>
		)
	);
	const parts = (side: Side) => written[side].split(/[\s,;]+/).filter(Boolean);
	const wrong = $derived.by(() => {
		for (const { side, label } of SIDES)
			for (const part of parts(side))
				if (!/^\d+$/.test(part) || Number(part) < 1 || Number(part) > FARTHEST_REMINDER)
					return `${label}: “${part}” is not a number of working days from 1 to ${FARTHEST_REMINDER}.`;
		return '';
	});
	const rhythm = $derived(
		Object.fromEntries(
			SIDES.map(({ side }) => [side, [...new Set(parts(side).map(Number))].sort((a, b) => a - b)])
		) as Record<Side, number[]>
	);
	const today = projectDay();
	const dueIn = $derived(plusWorkingDays(today, 10, project.workCalendar));
	const OF = [
		['receipt', 'asked for the receipt'],
		['soon', 'reminded of the reply'],
		['overdue', 'told that it is overdue']
	] as const;
	/** What somebody gets who never answers a release of today. */
	const example = $derived(
		wrong
			? []
			: reminderDays(
					{ issued: today, replyBy: dueIn, received: false, answered: false },
					rhythm,
					project.workCalendar
				)
	);
</script>

<SettingsForm
	project={project.id}
	title="Sender of mails"
	button="Change the sender"
	change={{ mailSender: { name: name.trim(), replyTo: replyTo.trim() } }}
>
	<div class="grid gap-3 sm:grid-cols-2">
		<Field
			label="Name"
			name="mailSender.name"
			bind:value={name}
			maxlength={80}
			placeholder={more.sends.name}
		/>
		<Field
			label="Answers go to"
			name="mailSender.replyTo"
			type="email"
			bind:value={replyTo}
			maxlength={180}
			placeholder="nobody"
		/>
	</div>
	<p class="border border-rule bg-film px-3 py-1.5 text-[12px]">
		From: <b class="font-semibold">{name.trim() || more.sends.address}</b>{replyTo.trim()
			? ` · answers to ${replyTo.trim()}`
			: ''}
	</p>
</SettingsForm>
<SettingsForm
	project={project.id}
	title="Reminders"
	button="Change the reminders"
	change={{ reminders: rhythm }}
	{wrong}
>
	<p class="text-[12px] text-ink-2">
		Whoever was sent a release and has not confirmed or answered it gets a mail, in the morning, at most one a
		day. Numbers of working days, with commas between; none for no reminder.
	</p>
	<div class="grid gap-3 sm:grid-cols-3">
		{#each SIDES as { side, label, hint } (side)}<Field
				{label}
				{hint}
				name="reminders.{side}"
				bind:value={written[side]}
				maxlength={60}
				mono
			/>{/each}
	</div>
	{#if !wrong}<p>
			{#if example.length}Who gets a release today, with a reply by {dayText(dueIn)}, is {OF.map(
					([of, word]) => [word, example.filter((one) => one.of === of)] as const
				)
					.filter(([, days]) => days.length)
					.map(([word, days]) => `${word} on ${days.map(({ day }) => dayText(day)).join(', ')}`)
					.join('; ')}. An answer ends it.
			{:else}Nobody is reminded.{/if}
		</p>{/if}
</SettingsForm>
