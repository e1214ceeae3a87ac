<script lang="ts">
	import { refresh } from '$lib/ui/platform/refresh';
	import { onMount } from 'svelte';
	import { goto } from '$app/navigation';
	import { releaseNumber } from '$lib/core/releases';
	import { PURPOSE_LABEL } from '$lib/core/revisions/revisions';
	import Table from '$lib/ui/kit/Table.svelte';
	import { onTouched } from '$lib/ui/platform/live.svelte';
	import ReleaseDialog from '$lib/ui/releases/ReleaseDialog.svelte';
	import ReleaseTabs from '$lib/ui/releases/ReleaseTabs.svelte';
	import ReleaseState from '$lib/ui/releases/ReleaseState.svelte';
	import { dayText, plural } from '$lib/ui/platform/words';

	let { data } = $props();
	const code = $derived(data.frame.project.code.toLowerCase());
	let building = $state(false);
	onMount(() => onTouched(['releases'], () => refresh('cupboard:releases')));
	const NUMBER = {
		id: 'number',
		head: 'Number',
		text: (r: { number: number }) => releaseNumber(r.number),
		by: (r: { number: number }) => r.number,
		class: 'font-mono font-semibold'
	};
	type Sent = (typeof data.sent)[number];
	const askedOf = (r: Sent) => {
		if (!r.waits) return r.expects === 'information' ? 'nothing' : 'done';
		const day = r.replyBy ? ` by ${dayText(r.replyBy)}` : '';
		if (r.expects === 'receipt') return `confirm receipt${day}`;
		return r.answered
			? `${r.answered} of ${plural(r.documents, 'verdict')}${day}`
			: `${plural(r.documents, 'verdict')}${day}`;
	};
	type Row = (typeof data.releases)[number];
	const onRoute = (r: Row) =>
		r.turn
			? `${r.turn}${r.steps > 1 ? `, step ${r.approved + 1} of ${r.steps}` : ''}`
			: r.approved
				? 'done'
				: plural(r.steps, 'step');
	const reply = (r: Row) => {
		if (!r.issuedAt) return r.replyBy ? `asked by ${dayText(r.replyBy)}` : '';
		if (r.differing) return `${plural(r.differing, 'verdict differs', 'verdicts differ')}`;
		if (r.asked && r.answered === r.asked) return 'all verdicts are in';
		if (r.answered) return `${r.answered} of ${r.asked} verdicts`;
		return r.received
			? r.recipients > 1
				? `received by ${r.received} of ${r.recipients}`
				: 'received'
			: 'not received yet';
	};
	/** Who was only sent releases has no list of others beside these. */
	const listed = $derived(data.releases.length > 0 || !data.sent.length);
</script>

<svelte:head><title>Releases · {data.frame.project.name}</title></svelte:head>
<div class="flex h-full flex-col">
	{#if data.frame.me.controller}<ReleaseTabs base="/{code}/releases" at="releases"
			><p class="text-ink-2">{plural(data.releases.length, 'release')}</p>
			<button class="button button-act ml-auto" onclick={() => (building = true)}>New release</button
			></ReleaseTabs
		>{:else}<div class="flex items-center gap-3 px-5 py-3">
			<h1 class="text-[21px]">Releases</h1>
			{#if listed}<p class="text-ink-2">{plural(data.releases.length, 'release')} that you approve</p>{/if}
		</div>{/if}
	{#if data.sent.length}<section class="mx-5 mb-4 max-sm:mx-3">
			<h2 class="mb-1 text-[15px]">Sent to you</h2>
			<Table
				label="Releases sent to you"
				rows={data.sent}
				key={(r) => String(r.number)}
				empty="None."
				columns={[
					NUMBER,
					{ id: 'title', head: 'Title', cell: sentTitle, by: (r) => r.title },
					{ id: 'purpose', head: 'Purpose', text: (r) => PURPOSE_LABEL[r.purpose], from: 'sm' },
					{
						id: 'issued',
						head: 'Issued',
						text: (r) => `${dayText(r.issuedAt)} by ${r.by}`,
						by: (r) => r.issuedAt,
						class: 'text-ink-2',
						from: 'md'
					},
					{ id: 'asked', head: 'Asked of you', text: askedOf }
				]}
			/>
		</section>{/if}
	{#if listed}<div class="mx-5 mb-4 min-h-0 flex-1">
			<Table
				label="Releases"
				rows={data.releases}
				key={(r) => r.id}
				empty={data.frame.me.controller
					? 'No release yet. Tick documents in a folder and put them in a release, or begin an empty one.'
					: 'No release asks for your approval.'}
				open={(r) => void goto(`/${code}/releases/${r.number}`)}
				fills
				columns={[
					NUMBER,
					{ id: 'title', head: 'Title', cell: title, by: (r) => r.title },
					{
						id: 'purpose',
						head: 'Purpose',
						text: (r) => PURPOSE_LABEL[r.purpose],
						by: (r) => r.purpose,
						from: 'sm'
					},
					{ id: 'state', head: 'State', cell: state, by: (r) => r.state },
					{ id: 'to', head: 'To', text: (r) => r.to, by: (r) => r.to, from: 'md' },
					{ id: 'route', head: 'Route', text: onRoute, class: 'text-ink-2', from: 'md' },
					{
						id: 'documents',
						head: 'Documents',
						text: (r) => String(r.documents),
						by: (r) => r.documents,
						class: 'font-mono',
						right: true,
						from: 'sm'
					},
					{
						id: 'issued',
						head: 'Issued',
						text: (r) => (r.issuedAt ? dayText(r.issuedAt) : ''),
						by: (r) => (r.issuedAt ? String(r.issuedAt) : ''),
						class: 'text-ink-2 whitespace-nowrap',
						from: 'md'
					},
					{ id: 'client', head: 'So far', text: reply, class: 'text-ink-2', from: 'md' }
				]}
			/>
		</div>{/if}
</div>

{#snippet title(r: Row)}<a class="font-semibold hover:text-act" href="/{code}/releases/{r.number}"
		>{r.title}</a
	>{/snippet}
{#snippet sentTitle(r: Sent)}<a class="font-semibold hover:text-act" href={r.link}>{r.title}</a
	>{#if r.superseded}<span class="ml-2 font-semibold text-fault">superseded</span>{/if}{/snippet}
{#snippet state(r: Row)}<ReleaseState state={r.state} />{/snippet}
{#if data.frame.me.controller}{#if building}<ReleaseDialog
			bind:open={building}
			project={data.frame.project.id}
			{code}
			me={data.frame.me.id}
			documents={[]}
		/>{/if}{/if}
