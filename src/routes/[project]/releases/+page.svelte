<script lang="ts">
	import { refresh } from '$lib/ui/platform/refresh';
	import { onMount, untrack } from 'svelte';
	import { goto } from '$app/navigation';
	import { addressOf } from '$lib/client/cupboard';
	import {
		isLeft,
		narrowedReleases,
		RELEASE_STATE_LABEL,
		releaseNumber,
		RELEASE_STATES,
		RELEASES_LEFT,
		RELEASES_LEFT_LABEL,
		routeWords,
		soFarWords,
		type ReleasesLeft,
		type ReleasesShown
	} from '$lib/core/releases';
	import { PURPOSE_LABEL, PURPOSES } from '$lib/core/revisions/revisions';
	import Menu from '$lib/ui/kit/Menu.svelte';
	import Select from '$lib/ui/kit/Select.svelte';
	import Table from '$lib/ui/kit/Table.svelte';
	import { fetchFile } from '$lib/ui/platform/fetch-file';
	import { projectDay } from '$lib/ui/platform/project-day';
	import { Followed } from '$lib/ui/platform/followed.svelte';
	import { Narrowing } from '$lib/ui/platform/narrowing.svelte';
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
	const today = projectDay();
	const narrowed = new Narrowing<ReleasesShown>(
		() => data.shown,
		(to) => {
			const query = new URLSearchParams(Object.entries(to).filter(([, value]) => value !== ''));
			return goto(`?${query}`, { keepFocus: true, noScroll: true, replaceState: true });
		}
	);
	/** What is typed narrows the list at once; the address follows. */
	const text = new Followed(untrack(() => data.shown.text));
	$effect(() => text.follow(data.shown.text));
	const shown = $derived({ ...narrowed.now, text: text.value });
	const rows = $derived(narrowedReleases(data.releases, shown, today));
	const counted = (left: ReleasesLeft) => data.releases.filter((one) => isLeft(one, left, today)).length;
	const exported = (format: 'xlsx' | 'csv') =>
		fetchFile(addressOf('releasesList', { project: data.frame.project.id, ...shown, format }));
	const counting = $derived(
		rows.length === data.releases.length
			? plural(rows.length, 'release')
			: `${rows.length} of ${plural(data.releases.length, 'release')}`
	);
	/** Who was only sent releases has no list of others beside these. */
	const listed = $derived(data.releases.length > 0 || !data.sent.length);
</script>

<svelte:head><title>Releases · {data.frame.project.name}</title></svelte:head>
<div class="flex h-full flex-col">
	{#if data.frame.me.controller}<ReleaseTabs base="/{code}/releases" at="releases"
			><p class="text-ink-2" role="status">{counting}</p>
			<span class="ml-auto">{@render taking()}</span>
			<button class="button button-act" onclick={() => (building = true)}>New release</button></ReleaseTabs
		>{:else}<div class="flex items-center gap-3 px-5 py-3">
			<h1 class="text-[21px]">Releases</h1>
			{#if listed}<p class="text-ink-2" role="status">{counting} that you approve</p>
				<span class="ml-auto">{@render taking()}</span>{/if}
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
	{#if data.releases.length}<div class="flex flex-wrap items-center gap-2 px-5 pb-2">
			<input
				class="field !w-[210px]"
				type="search"
				aria-label="Find in number, title, who gets it"
				placeholder="Number, title, who gets it"
				maxlength="200"
				bind:value={text.value}
				onchange={() => narrowed.change({ text: text.value })}
			/>
			<Select
				label="State"
				choices={[
					{ value: '', label: 'State: all' },
					...RELEASE_STATES.map((value) => ({ value, label: RELEASE_STATE_LABEL[value] }))
				]}
				value={shown.state}
				choose={(state) => narrowed.change({ state, text: text.value })}
				class="!w-[130px]"
			/>
			<Select
				label="Purpose"
				choices={[
					{ value: '', label: 'Purpose: all' },
					...PURPOSES.map((value) => ({ value, label: PURPOSE_LABEL[value] }))
				]}
				value={shown.purpose}
				choose={(purpose) => narrowed.change({ purpose, text: text.value })}
				class="!w-[160px]"
			/>
			{#each RELEASES_LEFT as left (left)}
				<button
					class="button {shown.left === left ? '!border-act bg-done-soft' : ''}"
					aria-pressed={shown.left === left}
					onclick={() => narrowed.change({ left: shown.left === left ? '' : left, text: text.value })}
					>{RELEASES_LEFT_LABEL[left]} <span class="font-mono">{counted(left)}</span></button
				>
			{/each}
		</div>{/if}
	{#if listed}<div class="mx-5 mb-4 min-h-0 flex-1">
			<Table
				label="Releases"
				{rows}
				key={(r) => r.id}
				empty={data.releases.length
					? 'No release is so. Choose something else above.'
					: data.frame.me.controller
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
					{ id: 'route', head: 'Route', text: routeWords, class: 'text-ink-2', from: 'md' },
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
					{
						id: 'client',
						head: 'So far',
						text: (r) => soFarWords(r, today),
						class: 'text-ink-2 whitespace-nowrap',
						from: 'md'
					}
				]}
			/>
		</div>{/if}
</div>

{#snippet taking()}<Menu
		label="Export"
		groups={[
			[
				{ word: 'XLSX', act: () => exported('xlsx') },
				{ word: 'CSV', act: () => exported('csv') }
			]
		]}
	/>{/snippet}
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
