<script lang="ts">
	import { untrack } from 'svelte';
	import { Followed } from '../platform/followed.svelte';
	import { refreshAll } from '../platform/refresh';
	import { toast } from '../kit/toast';
	import { releaseNumber, suitabilityText, VERDICT_LABEL, VERDICTS, type Verdict } from '../../core/releases';
	import { PURPOSE_LABEL } from '../../core/revisions/revisions';
	import { cupboard, type AnswerOf } from '../../client/cupboard';
	import { attempt } from '../platform/api';
	import Field from '../kit/Field.svelte';
	import Form from '../kit/Form.svelte';
	import { NUMBER_COLUMN } from '../kit/table';
	import Table from '../kit/Table.svelte';
	import PassColleagues from './PassColleagues.svelte';
	import SentSince from './SentSince.svelte';
	import VerdictChoice, { VERDICT_LOOK } from './VerdictChoice.svelte';
	import Revision from '../documents/Revision.svelte';
	import { dayText, plural, sizeText, timeText } from '../platform/words';

	/** What the client sees of a release: receipt and currency first, then the documents with their verdicts. */
	let { view, secret }: { view: AnswerOf<'passView'>; secret: string } = $props();
	type Item = (typeof view.items)[number];
	const base = $derived(`/pass/${secret}`);
	const number = $derived(releaseNumber(view.release.number));
	const size = $derived(view.items.reduce((n, i) => n + i.size, 0));
	const outdated = $derived(view.items.filter((i) => i.later));

	/** What a colleague saved meanwhile shows here too; what is chosen here and not saved yet stays. */
	const answers = untrack(() =>
		Object.fromEntries(
			view.items.map((i) => [
				i.documentId,
				{ code: new Followed<Verdict | null>(i.code), remark: new Followed(i.remark) }
			])
		)
	);
	$effect(() => {
		for (const item of view.items) {
			const answer = answers[item.documentId]!;
			answer.code.follow(item.code);
			answer.remark.follow(item.remark);
		}
	});
	// svelte-ignore state_referenced_locally
	let name = $state(view.holder);
	const asked = $derived(view.expects === 'verdicts');
	const open = $derived(view.items.filter((i) => !i.signed));
	const answered = $derived(open.filter((i) => answers[i.documentId]!.code.value));
	const given = (items: typeof view.items) =>
		items.map((i) => ({
			document: i.documentId,
			code: answers[i.documentId]!.code.value,
			remark: answers[i.documentId]!.remark.value
		}));

	async function receipt() {
		if (await attempt(() => cupboard.confirmReceipt({ secret }))) await refreshAll();
	}
	/** When the last of it was kept, as ISO 8601; empty while nothing was. */
	let keptAt = $state('');
	/** Keeps what was chosen and said of a document as it goes, so that nothing is lost on the way to another page. */
	async function keep(item: Item) {
		if (await attempt(() => cupboard.saveVerdicts({ secret, answers: given([item]) })))
			keptAt = new Date().toISOString();
	}
	const left = $derived(open.filter((i) => !answers[i.documentId]!.code.value));
	/** What nobody has answered yet is accepted; it is signed with the rest, and can be chosen anew until then. */
	async function acceptRest() {
		const rest = left;
		for (const { documentId } of rest) answers[documentId]!.code.value = 'A';
		if (await attempt(() => cupboard.saveVerdicts({ secret, answers: given(rest) })))
			keptAt = new Date().toISOString();
	}
	async function sign() {
		const { signed } = await cupboard.signVerdicts({ secret, name, answers: given(answered) });
		toast.success(`${plural(signed, 'verdict')} signed and sent. ${view.release.issuedBy} has been told.`);
		await refreshAll();
	}
</script>

<svelte:head
	><title>Release {number}: {view.release.title}</title><meta name="robots" content="noindex" /></svelte:head
>
<div class="min-h-screen bg-sheet pb-16">
	<!-- On paper there are no grounds and nothing to press. -->
	<header class="bg-frame text-on-frame print:border-b print:border-ink print:text-ink">
		<div class="mx-auto flex h-12 max-w-[1080px] items-center gap-4 px-5">
			<b class="text-[15px] [font-stretch:110%]">Cupboard</b>
			<span class="truncate text-[#c4d3cc] print:text-ink-2"
				>{view.project.name}, for {view.project.client}</span
			>
			<span class="ml-auto hidden text-[#c4d3cc] sm:inline print:text-ink-2"
				>open until {dayText(view.endsAt)} · you are {view.holder}</span
			>
		</div>
	</header>
	<main class="mx-auto max-w-[1080px] px-5 pt-5">
		{#if outdated.length}
			<div role="alert" class="mb-4 border-l-4 border-fault bg-fault-soft px-3 py-2 text-fault">
				<b class="text-[15px]"
					>{view.release.superseded
						? 'This release is superseded. Do not build from it.'
						: `${plural(outdated.length, 'document')} here ${outdated.length === 1 ? 'is' : 'are'} superseded.`}</b
				>
				<ul>
					{#each outdated.slice(0, 4) as item (item.documentId)}<li>
							{item.number} by {item.later!.label} on {dayText(item.later!.at)}<SentSince
								since={item.since}
								newest={item.later!.label}
							/>
						</li>{/each}
					{#if outdated.length > 4}<li>and {outdated.length - 4} more, marked below</li>{/if}
				</ul>
			</div>
		{/if}
		<div class="mb-4 flex flex-wrap items-center gap-2">
			<h1 class="mr-auto text-[24px] leading-tight">Release {number}: {view.release.title}</h1>
			<a class="button print:hidden" href="{base}/cover-note" target="_blank">Cover note</a>
			<a class="button print:hidden" href="{base}/all" download>Download all, {sizeText(size)}</a>
		</div>
		<dl
			class="mb-4 grid grid-cols-2 border border-ink sm:grid-cols-4 [&_dd]:font-semibold [&>div]:border-rule [&>div]:px-3 [&>div]:py-2 [&>div+div]:border-l"
		>
			<div>
				<dt class="cell-label">Purpose</dt>
				<dd>
					{PURPOSE_LABEL[view.release.purpose]}
					<span class="block text-[12px] font-normal text-ink-2"
						>{suitabilityText(view.release.suitability)}</span
					>
				</dd>
			</div>
			<div>
				<dt class="cell-label">Issued</dt>
				<dd>{dayText(view.release.issuedAt, view.project.timeZone)}, by {view.release.issuedBy}</dd>
			</div>
			<div>
				<dt class="cell-label">{asked ? 'Your reply by' : 'Asked of you'}</dt>
				<dd>
					{!asked
						? view.expects === 'receipt'
							? 'that it arrived'
							: 'nothing'
						: view.release.replyBy
							? dayText(view.release.replyBy)
							: 'no day asked'}
				</dd>
			</div>
			<div>
				<dt class="cell-label">Documents</dt>
				<dd>
					{view.items.length.toLocaleString('en')}, {outdated.length
						? `${outdated.length} superseded`
						: 'all still current'}
				</dd>
			</div>
		</dl>
		{#if view.release.words}<p class="mb-4 border-l-4 border-plank-2 px-3 py-2 whitespace-pre-line">
				<span class="cell-label block">From {view.release.issuedBy}</span>{view.release.words}
			</p>{/if}
		{#if view.receivedAt}
			<p class="mb-4 border-l-4 border-done bg-done-soft px-3 py-2">
				<span class="mr-2 text-done" aria-hidden="true">✓</span>Receipt confirmed {dayText(
					view.receivedAt,
					view.project.timeZone
				)}
				{timeText(view.receivedAt, view.project.timeZone)}.
				<span class="text-[12px] text-ink-2">{view.release.issuedBy} has been told.</span>
			</p>
		{:else if view.expects === 'information'}
			<p class="mb-4 border-l-4 border-rule px-3 py-2 text-ink-2">
				This came to you for information. Nothing is asked of you.
			</p>
		{:else}
			<p class="mb-4 flex flex-wrap items-center gap-3 border-l-4 border-wait bg-wait-soft px-3 py-2">
				Have these documents arrived? <button class="button ml-auto print:hidden" onclick={receipt}
					>Confirm receipt</button
				>
			</p>
		{/if}
		{#if asked && open.length}
			<Form
				act={sign}
				button="Sign and send {plural(answered.length, 'verdict')}"
				onPage
				disabled={!answered.length}
			>
				{@render list()}
				<div class="flex flex-wrap items-end gap-3 border-t-2 border-ink pt-4">
					<div class="w-[230px]">
						<Field label="Your name, as signature" name="name" bind:value={name} required maxlength={180} />
					</div>
					<p class="pb-1.5 text-ink-2 print:hidden" role="status">
						{view.items.length - open.length + answered.length} of {view.items.length} answered. What you choose
						is kept as you go{keptAt ? ` (last at ${timeText(keptAt, view.project.timeZone)})` : ''}; you can
						sign the rest later.
					</p>
					{#if left.length > 1}<button type="button" class="button ml-auto print:hidden" onclick={acceptRest}
							>Accept the other {left.length}</button
						>{/if}
				</div>
			</Form>
		{:else}{@render list()}
			{#if asked}<p class="mt-4 border-t-2 border-ink pt-4">
					All verdicts are signed and sent. Thank you.
				</p>{/if}{/if}
		<PassColleagues {view} {secret} />
	</main>
</div>

{#snippet list()}<Table
		label="Documents"
		rows={view.items}
		key={(item) => item.documentId}
		empty="There are no documents."
		lines
		group={view.items.some((item) => item.heading) ? (item) => item.heading : undefined}
		columns={[
			NUMBER_COLUMN,
			{
				id: 'title',
				head: asked ? 'Title and your remark' : 'Title',
				cell: title,
				by: (item) => item.title
			},
			{ id: 'revision', head: 'Revision', cell: revision },
			...(asked ? [{ id: 'verdict', head: 'Your verdict', cell: verdict, class: 'whitespace-nowrap' }] : []),
			{ id: 'do', head: 'Do', quiet: true, cell: acts, class: 'whitespace-nowrap print:hidden', right: true }
		]}
	/>
	{#if asked}<p class="mt-2.5 text-ink-2">
			{#each VERDICTS as v (v)}<b class="text-ink">{v}</b> {VERDICT_LABEL[v]} &nbsp;{/each}
		</p>
	{/if}{/snippet}
{#snippet title(item: Item)}{@const answer = answers[item.documentId]!}<span class="font-semibold"
		>{item.title}</span
	>
	{#if item.later}<span class="block font-semibold text-fault"
			>superseded by {item.later.label} on {dayText(item.later.at)}<SentSince
				since={item.since}
				newest={item.later.label}
			/></span
		>{/if}
	{#if item.placed.length || item.drawn || item.files.length}<a
			class="link block text-[12px]"
			href="{base}/view/{item.documentId}"
			>{[
				...(item.placed.length ? [`${plural(item.placed.length, 'remark')} on the sheet`] : []),
				...(item.drawn ? [`${plural(item.drawn, 'mark')} drawn on it`] : []),
				...(item.files.length ? [plural(item.files.length, 'marked-up file')] : [])
			].join(', ')}</a
		>{/if}
	{#if item.signed}{#if item.remark}<span class="block text-ink-2">{item.remark}</span>{/if}
	{:else if answer.code.value || answer.remark.value}<textarea
			class="field mt-1 min-h-[34px]"
			rows="1"
			aria-label="Remark on {item.number}"
			placeholder={answer.code.value === 'C' || answer.code.value === 'D' ? 'Say why' : 'Remark, if you like'}
			bind:value={answer.remark.value}
			onchange={() => void keep(item)}
			maxlength="2000"></textarea>{/if}{/snippet}
{#snippet revision(item: Item)}<Revision label={item.label} issued />{/snippet}
{#snippet verdict(item: Item)}{@const answer = answers[item.documentId]!}{#if item.signed}<span
			class="inline-block px-3 py-1 font-bold {VERDICT_LOOK[item.code as Verdict]}">{item.code}</span
		> <span class="text-[12px] text-ink-2">signed {dayText(item.signed.at)}</span>
	{:else}<VerdictChoice
			number={item.number}
			value={answer.code.value}
			choose={(verdict) => {
				answer.code.value = verdict;
				void keep(item);
			}}
		/>{/if}{/snippet}
{#snippet acts(item: Item)}<a class="link" href="{base}/view/{item.documentId}"
		>{asked && !item.signed ? 'View and remark' : 'View'}</a
	>
	{#if item.before}<a
			class="link ml-2"
			href="{base}/compare/{item.documentId}"
			title="What changed since {item.before.label}, which you got in release {releaseNumber(
				item.before.release
			)}">Compare with {item.before.label}</a
		>{/if}
	<a class="link ml-2" href="{base}/file/{item.documentId}?download" download>Download</a>{/snippet}
