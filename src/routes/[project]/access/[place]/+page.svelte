<script lang="ts">
	import { onMount } from 'svelte';
	import { toast } from '$lib/ui/kit/toast';
	import { LEVELS, levelLabel } from '$lib/core/access/levels';
	import type { AccessRow } from '$lib/core/access/rows';
	import AccessDialog from '$lib/ui/access/AccessDialog.svelte';
	import { cupboard } from '$lib/client/cupboard';
	import { attempt } from '$lib/ui/platform/api';
	import Avatar from '$lib/ui/kit/Avatar.svelte';
	import Table from '$lib/ui/kit/Table.svelte';
	import BringIn from '$lib/ui/access/BringIn.svelte';
	import ConfirmDialog from '$lib/ui/kit/ConfirmDialog.svelte';
	import { effectText } from '$lib/ui/access/effect-text';
	import FreezeButton from '$lib/ui/access/FreezeButton.svelte';
	import InviteBox from '$lib/ui/access/InviteBox.svelte';
	import LevelChange from '$lib/ui/access/LevelChange.svelte';
	import { onTouched } from '$lib/ui/platform/live.svelte';
	import { refresh } from '$lib/ui/platform/refresh';
	import TryAs from '$lib/ui/shell/TryAs.svelte';
	import WhyPanel from '$lib/ui/access/WhyPanel.svelte';
	import { ended } from '$lib/core/words/sentences';
	import { dayText, placeWord, plural } from '$lib/ui/platform/words';

	let { data } = $props();
	type Reaching = (typeof data.people)[number];
	const base = $derived(`/${data.frame.project.code.toLowerCase()}`);
	const outside = $derived(data.people.filter((p) => p.outside).length);
	const word = $derived(placeWord(data.place));
	const back = $derived(
		data.place.kind === 'document' ? `${base}/document/${data.place.id}` : `${base}/place/${data.place.id}`
	);

	let shows = $state<'given' | 'people'>('given');
	let person = $state<string | null>(null);
	let entry = $state<string | null>(null);
	let version = $state(0);
	let changing = $state<AccessRow | null>(null);
	let asking = $state<{ title: string; text: string; button: string; act: () => Promise<unknown> } | null>(
		null
	);
	const entryRow = $derived(entry === null ? null : (data.rows.find((r) => r.grant === entry) ?? null));

	async function again() {
		await refresh('cupboard:access');
		version++;
	}
	onMount(() => onTouched(['access', 'people', 'places', 'passes'], again));

	function why(row: AccessRow) {
		person = row.kind === 'person' ? row.subject : null;
		entry = row.kind === 'person' ? null : row.grant;
	}
	/** Files are put into folders, so Drop means nothing at a document. */
	const levels = $derived(data.place.kind === 'document' ? LEVELS.filter((l) => l !== 'drop') : LEVELS);
	async function end(grant: string, name: string) {
		const effect = await attempt(() => cupboard.effectOfEnding({ place: data.place.id, grant }));
		if (!effect) return;
		const row = data.rows.find((r) => r.grant === grant);
		asking = {
			title: `End ${row && row.level !== 'barred' ? levelLabel(row.level) : 'the bar'} for ${name}?`,
			text: `${effectText(effect)}${row?.brought ? ` ${plural(row.brought, 'person', 'people')} they brought in lose it too.` : ''} Copies already downloaded stay where they are.`,
			button: 'End it',
			act: () => cupboard.endAccess({ place: data.place.id, grant })
		};
	}
	async function close() {
		if (data.place.closed) {
			asking = {
				title: `Inherit access at ${data.place.name} again?`,
				text: 'What was given further up reaches it again.',
				button: 'Inherit again',
				act: () => cupboard.openPlace({ place: data.place.id })
			};
			return;
		}
		const effect = await attempt(() => cupboard.effectOfClosing({ place: data.place.id }));
		if (effect)
			asking = {
				title: `Stop inheriting access at ${data.place.name}?`,
				text: `What was given further up stops reaching it, apart from Manage. ${effectText(effect)}`,
				button: 'Stop inheriting',
				act: () => cupboard.closePlace({ place: data.place.id })
			};
	}
	async function sensitive() {
		const next = !data.place.sensitive;
		if (await attempt(() => cupboard.markSensitive({ place: data.place.id, sensitive: next }))) {
			toast(next ? 'Marked as sensitive: no pass with a chosen ending reaches it.' : 'The mark is gone.');
			await again();
		}
	}
</script>

<svelte:head><title>Access of {data.place.name} · {data.frame.project.name}</title></svelte:head>
<div class="flex h-full flex-col">
	<div class="flex flex-wrap items-center gap-x-2.5 gap-y-1.5 px-5 py-2">
		<h1 class="flex flex-wrap items-center gap-x-1.5 text-[18px]">
			{#each data.way as step, i (step.id)}
				{#if i === 0 && step.code}<span
						class="mr-1 rounded-sm bg-frame px-1.5 font-mono text-[11px] leading-[18px] text-on-frame"
						>{step.code}</span
					>{/if}
				<a
					class="font-medium text-ink-2 hover:text-ink"
					href={step.kind === 'document' ? `${base}/document/${step.id}` : `${base}/place/${step.id}`}
					>{step.kind === 'document' ? data.place.number : step.name}</a
				><span class="text-ink-2">/</span>
			{:else}<a class="font-medium text-ink-2 hover:text-ink" href={back}>{data.place.name}</a><span
					class="text-ink-2">/</span
				>{/each}
			<span>Access</span>
		</h1>
		<p class="text-ink-2">
			{plural(data.people.length, 'person reaches', 'people reach')} this {word}{outside
				? ` · ${outside} outside`
				: ''}{data.passes ? ` · ${plural(data.passes, 'pass', 'passes')}` : ''}
		</p>
		{#if data.place.closed}<span class="tag bg-rule-2">inherits no access</span>{/if}
		{#if data.place.sensitive}<span class="tag bg-fault-soft text-fault">sensitive</span>{/if}
		<div class="ml-auto flex flex-wrap gap-1.5">
			{#if data.frame.me.mayTry}<TryAs project={data.frame.project.id} to={back} />{/if}
			{#if data.can.letIn.may}
				{#if data.can.closePlace.may || data.can.openPlace.may}<button class="button" onclick={close}
						>{data.place.closed ? 'Inherit access again' : 'Stop inheriting access'}</button
					>{/if}
				<FreezeButton place={data.place} thaws={data.can.thawPlace.may} done={again} />
				<button class="button" onclick={sensitive}
					>{data.place.sensitive ? 'Not sensitive' : 'Mark sensitive'}</button
				>
				<a class="button" href="{base}/passes?place={data.place.id}">Passes {data.passes}</a>
			{/if}
		</div>
	</div>
	{#if data.freeze}<p class="mx-5 mb-2 border-l-4 border-wait bg-wait-soft px-3 py-1.5">
			Frozen by {data.freeze.by} since {dayText(data.freeze.at)}: {ended(data.freeze.reason)} Nobody below Manage
			changes anything here.
		</p>{/if}
	<div class="grid min-h-0 flex-1 overflow-auto lg:grid-cols-[1fr_360px] lg:overflow-hidden">
		<div class="px-5 pb-4 lg:overflow-auto">
			<div class="flex gap-1 text-[12.5px]" role="tablist" aria-label="Shown as">
				{#each [['given', `Shared with ${data.rows.length}`], ['people', `People ${data.people.length}`]] as [value, word] (value)}
					<button
						role="tab"
						aria-selected={shows === value}
						class="border-b-2 px-2 py-1 font-semibold {shows === value
							? 'border-ink'
							: 'border-transparent text-ink-2'}"
						onclick={() => (shows = value as typeof shows)}>{word}</button
					>
				{/each}
			</div>
			{#if shows === 'given'}
				<Table
					label="Whom it is shared with"
					rows={data.rows}
					key={(row) => row.grant ?? 'controllers'}
					empty="It is shared with nobody."
					rowClass={(row) => (row.here ? 'bg-act-soft/60' : '')}
					columns={[
						{ id: 'who', head: 'Who', cell: who, by: (row) => row.name },
						{ id: 'about', head: 'About', quiet: true, cell: about, from: 'md' },
						{
							id: 'may',
							head: 'May',
							cell: may,
							by: (row) => -LEVELS.findIndex((level) => level === row.level),
							class: 'whitespace-nowrap'
						},
						{ id: 'from', head: 'Where it comes from', cell: cameFrom, class: 'text-ink-2', from: 'sm' },
						{
							id: 'until',
							head: 'Until',
							text: (row) => (row.until ? dayText(row.until) : ''),
							by: (row) => row.until ?? Infinity,
							class: 'whitespace-nowrap text-ink-2',
							from: 'sm'
						},
						{ id: 'do', head: 'Do', quiet: true, cell: acts, class: 'whitespace-nowrap', right: true }
					]}
				/>
			{:else}
				<Table
					label="Who reaches it"
					rows={data.people}
					key={(row) => row.person}
					empty="Nobody reaches it."
					rowClass={(row) => (row.person === person ? 'bg-act-soft' : '')}
					columns={[
						{ id: 'who', head: 'Person', cell: whoReaches, by: (row) => row.name },
						{
							id: 'may',
							head: 'May',
							text: (row) => levelLabel(row.level),
							by: (row) => -LEVELS.findIndex((level) => level === row.level),
							class: 'font-semibold'
						},
						{
							id: 'through',
							head: 'Through',
							text: (row) => row.through,
							by: (row) => row.through,
							class: 'text-ink-2'
						},
						{ id: 'do', head: 'Do', quiet: true, cell: whyThey, right: true }
					]}
				/>
			{/if}
		</div>
		<aside class="space-y-4 border-l border-rule bg-sheet px-4 py-4 lg:overflow-auto">
			{#if data.can.letIn.may}<InviteBox
					places={[data.place.id]}
					known={data.known}
					outsideLevel={data.outsideLevel}
					ownDomains={data.frame.project.ownDomains}
					{levels}
					done={again}
				/>{/if}
			{#each data.bringing as allowance (allowance.grant)}<BringIn
					place={data.place.id}
					{allowance}
					known={data.known}
					done={again}
				/>{/each}
			{#if person}<WhyPanel place={data.place.id} {person} {version} end={data.can.letIn.may ? end : null} />
			{:else if entryRow}
				<section class="space-y-2 border-t border-rule pt-4">
					<h2 class="text-[15px]">{entryRow.name}</h2>
					<p>
						{levelLabel(entryRow.level)}, {entryRow.here
							? 'given here'
							: `from ${entryRow.from?.name ?? 'a place above'}`}{entryRow.by
							? ` by ${entryRow.by} on ${dayText(entryRow.at)}`
							: ', which came with the shelf'}.
						{#if entryRow.from}<a class="link" href="{base}/access/{entryRow.from.id}">Change it there</a
							>{/if}
					</p>
					<p class="text-ink-2">{plural(entryRow.people, 'person', 'people')}. Choose one to see why:</p>
					<ul>
						{#each data.people.filter((p) => p.through === entryRow.name) as p (p.person)}<li>
								<button class="link" onclick={() => (person = p.person)}>{p.name}</button>
								<span class="text-ink-2">{levelLabel(p.level)}</span>
							</li>{/each}
					</ul>
				</section>
			{:else if !data.can.letIn.may}<p class="text-ink-2">
					{data.place.onDesk
						? data.can.letIn.why
						: `You may see who reaches this ${word}. To change it takes Manage; ask one of those who have it.`}
				</p>
				<button class="button" onclick={() => (person = data.frame.me.id)}>Why do I have this level?</button>
			{/if}
		</aside>
	</div>
</div>
{#if changing}<AccessDialog bind:row={changing} place={data.place.id} {levels} done={again} />{/if}
{#if asking}<ConfirmDialog bind:asking done={again} />{/if}

{#snippet who(row: AccessRow)}<span class="flex items-center gap-2 font-semibold"
		><Avatar
			name={row.name}
			code={row.code ?? undefined}
			many={row.kind !== 'person'}
			outside={row.outside}
		/><span
			>{row.name}<span class="block text-[11.5px] font-normal text-ink-2 sm:hidden"
				>{row.here ? 'given here' : row.from ? `from ${row.from.name}` : ''}{row.until
					? `, until ${dayText(row.until)}`
					: ''}</span
			></span
		></span
	>{/snippet}
{#snippet about(row: AccessRow)}<span class="block max-w-[180px] truncate text-ink-2" title={row.about}
		>{row.about}</span
	>{/snippet}
{#snippet may(row: AccessRow)}{#if row.here && data.can.letIn.may}<LevelChange
			{row}
			place={data.place.id}
			{levels}
			done={again}
		/>{:else}<b class="font-semibold {row.level === 'barred' ? 'text-fault' : ''}">{levelLabel(row.level)}</b
		>{/if}{#if row.exactly}<span class="ml-1 text-[11.5px] text-ink-2">exactly</span>{/if}{/snippet}
{#snippet cameFrom(row: AccessRow)}{#if row.kind === 'controllers'}project rule{:else}{row.here
			? 'here'
			: row.from
				? `from ${row.from.name}`
				: 'from above'}{row.by ? `, ${row.by.split(' ')[0]}, ${dayText(row.at)}` : ''}{row.broughtInBy
			? `, brought in by ${row.broughtInBy}`
			: ''}{/if}{#if row.bringCount}<span class="block text-[11.5px]"
			>may bring in {row.bringCount} at {levelLabel(row.bringLevel!)}, {row.brought} in</span
		>{/if}{/snippet}
{#snippet acts(row: AccessRow)}{#if row.kind !== 'controllers'}<button
			class="link text-ink-2"
			onclick={() => why(row)}>Why?</button
		>{/if}{#if row.here && data.can.letIn.may}<button class="link ml-2" onclick={() => (changing = row)}
			>Change</button
		>{/if}{#if row.mayEnd}<button class="link ml-2" onclick={() => end(row.grant!, row.name)}>End</button
		>{/if}{/snippet}
{#snippet whoReaches(row: Reaching)}<span class="flex items-center gap-2 font-semibold"
		><Avatar name={row.name} outside={row.outside} /><span
			>{row.name}{#if row.outside}<span class="ml-2 text-[11.5px] font-normal text-ink-2">outside</span
				>{/if}</span
		></span
	>{/snippet}
{#snippet whyThey(row: Reaching)}<button
		class="link text-ink-2"
		onclick={() => {
			person = row.person;
			entry = null;
		}}>Why?</button
	>{/snippet}
