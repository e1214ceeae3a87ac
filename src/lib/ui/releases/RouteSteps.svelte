<script lang="ts">
	import { whoWords, type RELEASE_STATES } from '../../core/releases';
	import type { AnswerOf } from '../../client/cupboard';
	import { dayText, plural, whenText } from '../platform/words';
	import Stamp from './Stamp.svelte';

	/** The way of a release, filling up with stamps: its route, the issue, the client. */
	let {
		release: about,
		route,
		recipients
	}: {
		release: AnswerOf<'releaseView'>['release'];
		route: AnswerOf<'releaseView'>['route'];
		recipients: AnswerOf<'releaseView'>['recipients'];
	} = $props();
	/** Whether everybody has done what was asked of them. */
	const answered = $derived(
		about.issuedAt !== null &&
			recipients.every((one) =>
				one.expects === 'verdicts'
					? one.answered === one.gets
					: one.expects === 'information' || one.pass?.receivedAt
			)
	);

	type Way = 'done' | 'now' | 'later';
	const WAITING: (typeof RELEASE_STATES)[number][] = ['in-review'];
	/** Out is out: what was approved then stays so, whatever the route would ask today. */
	const stateOf = (step: (typeof route)[number]): Way =>
		step.state === 'now' && !WAITING.includes(about.state) ? 'later' : step.state;
</script>

{#snippet sign(n: number, state: Way)}<span
		class="grid h-8 w-8 shrink-0 place-items-center border-2 bg-sheet font-mono font-semibold {state ===
		'done'
			? '-rotate-3 border-done text-done'
			: state === 'now'
				? 'border-wait text-wait'
				: 'border-rule text-ink-2'}">{n}</span
	>{/snippet}

<ol class="space-y-4">
	{#each route as step, at (at)}
		{@const state = stateOf(step)}
		<li class="flex gap-3" aria-current={state === 'now' ? 'step' : undefined}>
			{@render sign(at + 1, state)}
			<div class="min-w-0 space-y-1">
				<p>
					<b class="font-semibold">{step.name}</b>
					<span class="text-ink-2"
						>{whoWords(step)}{step.of.map((one) => one.name).join(', ')}{step.of.length === 1 &&
						step.of[0]!.kind === 'department'
							? ', a lead'
							: ''}</span
					>
				</p>
				{#if state === 'now'}<p class="text-[12px] text-ink-2">
						{#if step.due}<span class="font-semibold text-lock">due {dayText(step.due)}</span
							>{/if}{`${step.due ? ', ' : ''}${plural(step.needed - step.given.length, 'approval')} to come`}{about.askedAt
							? `, asked ${whenText(about.askedAt)}`
							: ''}
					</p>{:else if state === 'later' && step.days}<p class="text-[12px] text-ink-2">
						within {plural(step.days, 'working day')} of its turn
					</p>{/if}
				{#each step.given as one (one.by)}<div>
						<Stamp word="Approved" at={one.at} name={one.by} />
						{#if one.standsFor}<span class="text-[12px] text-ink-2">for {one.standsFor}</span
							>{:else if one.of !== one.by}<span class="text-[12px] text-ink-2">for {one.of}</span>{/if}
					</div>{/each}
				{#if state !== 'done'}{#each step.of.filter((one) => one.away) as one (one.id)}<p class="text-[12px]">
							{one.name} is away until {dayText(one.away!.until)};
							<b class="font-semibold">{one.away!.standIn}</b> decides.
						</p>{/each}{/if}
			</div>
		</li>
	{/each}
	<li class="flex gap-3">
		{@render sign(route.length + 1, about.issuedAt ? 'done' : about.state === 'approved' ? 'now' : 'later')}
		<div>
			<b class="font-semibold">Issue</b>
			<span class="text-[12px] text-ink-2">revisions fixed, hashes written, passes and mails</span>
			{#if about.issuedAt}<div>
					<Stamp word="Issued" at={about.issuedAt} name={about.issuedBy ?? ''} />
				</div>{/if}
		</div>
	</li>
	<li class="flex gap-3">
		{@render sign(route.length + 2, answered ? 'done' : about.issuedAt ? 'now' : 'later')}
		<div class="space-y-1">
			<b class="font-semibold">{recipients.length === 1 ? 'Client' : 'Recipients'}</b>
			<span class="text-[12px] text-ink-2"
				>{[...new Set(recipients.map((one) => one.company))].join(', ')}</span
			>
			{#each recipients.filter((one) => one.pass?.receivedAt) as one (one.recipient)}<div>
					<Stamp word="Received" at={one.pass!.receivedAt!} name={one.name} />
				</div>{/each}
			{#if !about.issuedAt}<p class="text-ink-2">receipt, then a code for each document</p>{/if}
		</div>
	</li>
</ol>
