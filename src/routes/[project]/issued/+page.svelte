<script lang="ts">
	import { onMount } from 'svelte';
	import { goto } from '$app/navigation';
	import { cupboard } from '$lib/client/cupboard';
	import { releaseNumber, VERDICT_LABEL } from '$lib/core/releases';
	import { PURPOSE_LABEL } from '$lib/core/revisions/revisions';
	import Revision from '$lib/ui/documents/Revision.svelte';
	import Table from '$lib/ui/kit/Table.svelte';
	import { attempt } from '$lib/ui/platform/api';
	import { onTouched } from '$lib/ui/platform/live.svelte';
	import { projectDay } from '$lib/ui/platform/project-day';
	import { refresh } from '$lib/ui/platform/refresh';
	import { dayText, plural } from '$lib/ui/platform/words';

	/** What is issued: of each document the revision that others build from, with whom it went out and what they said. */
	let { data } = $props();
	const code = $derived(data.frame.project.code.toLowerCase());
	const today = projectDay();
	type Row = (typeof data.rows)[number];
	/** What was asked for beyond the first page. */
	let further = $derived<{ rows: Row[]; next: string | undefined }>({ rows: [], next: data.next });
	let words = $state('');
	const all = $derived([...data.rows, ...further.rows]);
	const rows = $derived.by(() => {
		const wanted = words.trim().toLowerCase();
		if (!wanted) return all;
		return all.filter((row) =>
			[row.number, row.title, row.department ?? '', row.release?.to ?? '', row.label].some((text) =>
				text.toLowerCase().includes(wanted)
			)
		);
	});
	onMount(() => onTouched(['documents', 'releases', 'places', 'access'], () => refresh('cupboard:issued')));
	async function more() {
		const { next } = further;
		const answer = await attempt(() => cupboard.issued({ project: data.frame.project.id, after: next }));
		if (answer) further = { rows: [...further.rows, ...answer.rows], next: answer.next };
	}
	/** What the client said, or until when they are asked to. */
	function reply(row: Row): { text: string; look: string } {
		if (row.verdict)
			return {
				text: `${row.verdict} ${VERDICT_LABEL[row.verdict]}`,
				look: row.verdict === 'A' || row.verdict === 'B' ? 'text-done' : 'text-fault'
			};
		const by = row.release?.replyBy;
		if (!by) return { text: '', look: '' };
		return by < today
			? { text: `overdue since ${dayText(by)}`, look: 'font-semibold text-fault' }
			: { text: `asked by ${dayText(by)}`, look: 'text-wait' };
	}
</script>

<svelte:head><title>What is issued · {data.frame.project.name}</title></svelte:head>
<div class="flex h-full flex-col px-5 py-3">
	<div class="mb-2 flex flex-wrap items-center gap-x-4 gap-y-1.5">
		<h1 class="text-[21px]">What is issued</h1>
		<p class="text-ink-2">
			{further.next ? `the newest ${all.length} documents` : plural(all.length, 'document')}, each at the
			revision that others build from
		</p>
		<input
			class="field ml-auto !w-[220px]"
			type="search"
			aria-label="Narrow by words"
			placeholder="Number, title or company"
			bind:value={words}
		/>
		{#if further.next}<button class="button" onclick={more}>Show more</button>{/if}
	</div>
	<div class="min-h-0 flex-1">
		<Table
			label="What is issued"
			{rows}
			key={(row) => row.document}
			empty={all.length
				? 'Nothing fits the words.'
				: 'Nothing is issued yet. A document stands here as soon as a revision of it is issued, by itself or with a release.'}
			open={(row) => void goto(`/${code}/document/${row.document}`)}
			fills
			lines
			columns={[
				{
					id: 'department',
					head: 'Dept',
					text: (row) => row.department ?? '',
					by: (row) => row.department ?? '',
					class: 'font-mono text-[12px]',
					from: 'md'
				},
				{ id: 'number', head: 'Number', cell: number, by: (row) => row.number },
				{
					id: 'title',
					head: 'Title',
					text: (row) => row.title,
					by: (row) => row.title,
					class: 'font-semibold'
				},
				{ id: 'revision', head: 'Issued', cell: revision, by: (row) => row.label },
				{
					id: 'at',
					head: 'On',
					text: (row) => dayText(row.at),
					by: (row) => -new Date(row.at).getTime(),
					class: 'whitespace-nowrap text-ink-2'
				},
				{ id: 'release', head: 'With', cell: release, by: (row) => -(row.release?.number ?? 0), from: 'md' },
				{
					id: 'for',
					head: 'For',
					text: (row) => (row.release ? PURPOSE_LABEL[row.release.purpose].toLowerCase() : ''),
					by: (row) => row.release?.purpose ?? '',
					class: 'whitespace-nowrap',
					from: 'md'
				},
				{
					id: 'to',
					head: 'To',
					text: (row) => row.release?.to ?? '',
					by: (row) => row.release?.to ?? '',
					from: 'md'
				},
				{ id: 'reply', head: 'Reply', cell: replied, by: (row) => reply(row).text },
				{ id: 'since', head: 'Work since', cell: since, from: 'md' }
			]}
		/>
	</div>
</div>

{#snippet number(row: Row)}<a
		class="link font-mono text-[12px] whitespace-nowrap"
		href="/{code}/document/{row.document}">{row.number}</a
	>{/snippet}
{#snippet revision(row: Row)}<Revision label={row.label} issued />{/snippet}
{#snippet release(row: Row)}{#if row.release}{#if data.frame.me.controller}<a
				class="link font-mono text-[12px]"
				href="/{code}/releases/{row.release.number}">{releaseNumber(row.release.number)}</a
			>{:else}<span class="font-mono text-[12px]">{releaseNumber(row.release.number)}</span>{/if}{:else}<span
			class="text-[12px] text-ink-2">no release</span
		>{/if}{/snippet}
{#snippet replied(row: Row)}{@const said = reply(row)}<span class="whitespace-nowrap {said.look}"
		>{said.text}</span
	>{/snippet}
{#snippet since(row: Row)}{#if row.since}<Revision label={row.since} issued={false} />{/if}{/snippet}
