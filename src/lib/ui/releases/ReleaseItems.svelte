<script lang="ts">
	import { CHECK_LABEL, CHECKS, VERDICT_LABEL, type Check, type Remedy } from '../../core/releases';
	import { plural } from '../platform/words';
	import { addressOf, type AnswerOf, type InputOf } from '../../client/cupboard';
	import Table from '../kit/Table.svelte';
	import { NUMBER_COLUMN, type Column } from '../kit/table';
	import Revision from '../documents/Revision.svelte';

	type Item = AnswerOf<'releaseView'>['items'][number];

	/** The documents of a release: while it is built with what the checks say, afterwards with what became of them. */
	let {
		items,
		address,
		release,
		releaseId,
		done,
		deciding,
		mayMend,
		mayChange,
		sentBack,
		leaveOut,
		remedy,
		consolidate,
		accept
	}: {
		items: Item[];
		/** Of the project. */
		address: string;
		/** Number of the release. */
		release: number;
		releaseId: string;
		/** Whether it is issued. */
		done: boolean;
		/** Whether the reader is to decide on it, and so is told what they have opened. */
		deciding: boolean;
		/** Whether the reader controls documents. */
		mayMend: boolean;
		mayChange: boolean;
		/** What was said to be wrong with a document when the release was sent back, and by whom, by its id. */
		sentBack: ReadonlyMap<string, string>;
		leaveOut: (document: string) => unknown;
		remedy: (item: Item, check: Check) => unknown;
		/** Makes one of the verdicts on a document. */
		consolidate: (item: Item) => void;
		/** What goes out all the same, to be given a reason. */
		accept: (checks: InputOf<'acceptChecks'>['checks']) => void;
	} = $props();

	/** Checks that say something; what is fine for all is said once. */
	const telling = $derived(
		CHECKS.filter((name) => items.some((i) => i.checks.some((c) => c.name === name && c.result !== 'fine')))
	);
	const having = (result: Check['result']) =>
		items.flatMap((item) => item.checks.filter((c) => c.result === result).map((check) => ({ item, check })));
	const looks = $derived(having('look'));
	const asking = $derived(looks.filter(({ check }) => !check.accepted));
	const faults = $derived(having('stops'));
	/** Checks of which the references of a document say more. */
	const REFERENCES = new Set<Check['name']>(['references', 'named-by']);
	const REMEDY: Record<Remedy, string> = {
		'take-newest': 'Take the newest',
		'leave-out': 'Leave it out',
		'add-references': 'Add what it names',
		'ask-holder': 'Ask for it',
		'settle-remarks': 'Settle them…',
		'write-title-block': 'Write it in the sheet'
	};
	const SIGN = {
		fine: ['✓', 'text-done', 'fine'],
		look: ['!', 'text-lock', 'look at it'],
		stops: ['✕', 'text-fault', 'stops']
	} as const;
</script>

<Table
	label="Documents of the release"
	rows={items}
	key={(item) => item.documentId}
	empty="No documents yet. Tick documents in a folder and put them in this release."
	lines
	least="sm:min-w-[560px]"
	group={items.some((item) => item.heading) ? (item) => item.heading : undefined}
	columns={[
		NUMBER_COLUMN,
		{ id: 'title', head: 'Title', cell: title, by: (item) => item.title, class: 'font-semibold' },
		{ id: 'goes', head: done ? 'Revision' : 'Goes from → to', cell: goes, class: 'whitespace-nowrap' },
		...(done
			? [
					{ id: 'now', head: 'Now', cell: now },
					{ id: 'client', head: 'Verdict', cell: client }
				]
			: [
					...(deciding ? [{ id: 'looked', head: 'You', cell: looked, class: 'text-[12px]' }] : []),
					// On a phone what they say stands in words below.
					...telling.map((name) => ({
						id: name,
						head: CHECK_LABEL[name],
						cell: checked,
						class: 'text-center font-semibold',
						from: 'sm' as const
					})),
					{
						id: 'do',
						head: 'Do',
						quiet: true,
						cell: leave,
						class: 'text-[12px] whitespace-nowrap',
						right: true
					}
				])
	]}
/>
{#if !done && items.length && telling.length < CHECKS.length}
	<p class="mt-2 text-[12px] text-ink-2">
		<span class="font-semibold text-done">✓ Fine for all:</span>
		{CHECKS.filter((c) => !telling.includes(c))
			.map((c) => CHECK_LABEL[c].toLowerCase())
			.join(', ')}.
	</p>
{/if}
{#each faults as { item, check } (item.documentId + check.name)}
	<p class="mt-2 flex flex-wrap items-center gap-3 border-l-4 border-fault bg-fault-soft px-3 py-2">
		<span class="font-semibold"><span class="font-mono">{item.number}</span> {check.sentence}</span>
		{#if mayMend && check.remedy}<button class="button ml-auto" onclick={() => remedy(item, check)}
				>{REMEDY[check.remedy]}</button
			>{/if}
	</p>
{/each}
{#if looks.length}
	<section class="mt-4">
		<div class="mb-1 flex items-center gap-2">
			<h2 class="text-[15px]">To look at</h2>
			{#if mayChange && asking.length > 1}<button
					class="button ml-auto"
					onclick={() =>
						accept(
							asking.map(({ item, check }) => ({
								document: item.documentId,
								check: check.name
							}))
						)}>All of these go out…</button
				>{/if}
		</div>
		{#each looks as { item, check } (item.documentId + check.name)}
			<p
				class="mb-1 flex flex-wrap items-center gap-x-3 border-l-4 px-3 py-1.5 {check.accepted
					? 'border-done bg-done-soft/50'
					: 'border-lock bg-lock-soft'}"
			>
				<span
					><span class="font-mono text-[12.5px]">{item.number}</span>
					{CHECK_LABEL[check.name]}: {check.sentence}
					{#if REFERENCES.has(check.name) && item.mayView}<a
							class="link"
							href="{address}/document/{item.documentId}/references"
							aria-label="References of {item.number}">See its references</a
						>{/if}
					{#if check.accepted}<b class="font-semibold">{check.accepted.by}: {check.accepted.reason}</b
						>{/if}</span
				>
				{#if mayChange}<span class="ml-auto flex flex-wrap gap-2"
						>{#if check.remedy && !check.accepted}<button class="button" onclick={() => remedy(item, check)}
								>{REMEDY[check.remedy]}</button
							>{/if}<button
							class="button"
							onclick={() => accept([{ document: item.documentId, check: check.name }])}
							>{check.accepted ? 'Another reason…' : 'Goes out…'}</button
						></span
					>{/if}
			</p>
		{/each}
	</section>
{/if}

{#snippet title(item: Item)}{#if item.mayView && !deciding}<a
			class="hover:text-act"
			href="{address}/document/{item.documentId}?version={item.label}">{item.title}</a
		>{:else}<a class="hover:text-act" href="{address}/releases/{release}/view/{item.documentId}"
			>{item.title}</a
		>{/if}{#if item.leaves}{#if mayMend}<a
				class="link mt-1 block w-fit text-[12px] leading-6 font-normal"
				target="_blank"
				href={addressOf('releaseOutgoingFile', { release: releaseId, document: item.documentId })}
				aria-label="{item.number} as it {done ? 'went' : 'goes'} out: {item.leaves}"
				>{done ? 'went' : 'goes'} out {item.leaves}</a
			>{:else}<span class="block text-[12px] font-normal text-ink-2"
				>{done ? 'went' : 'goes'} out {item.leaves}</span
			>{/if}{/if}{#if !done && item.compares && item.compares !== item.label}<a
			class="link mt-1 block w-fit text-[12px] leading-6 font-normal"
			href="{address}/releases/{release}/compare/{item.documentId}"
			aria-label="Compare {item.number} with {item.compares}">compare with {item.compares}</a
		>{/if}{#if sentBack.has(item.documentId)}<span class="mt-1 block text-[12px] font-semibold text-fault"
			>sent back by {sentBack.get(item.documentId)}</span
		>{/if}{/snippet}
{#snippet goes(item: Item)}{#if !done && item.label !== item.to}<Revision
			label={item.label}
			issued={!item.label.includes('.')}
		/> →
		<span
			class="inline-block rounded-sm border border-ink px-1.5 font-mono text-[12px] leading-[18px] font-semibold"
			>{item.to}</span
		>{:else}<Revision label={item.to} issued={done || !item.label.includes('.')} />{/if}{/snippet}
{#snippet now(item: Item)}{#if item.later}<span class="font-semibold text-fault"
			>superseded by {item.later.label}</span
		>{:else}<span class="text-done">current</span>{/if}{/snippet}
{#snippet client(item: Item)}{#if item.verdicts.length === 1}{@render said(
			item,
			item.verdicts[0]!
		)}{:else if item.verdicts.length}
		<span class="flex flex-wrap items-center gap-x-2"
			>{#if item.outcome === 'differ'}<span class="tag bg-lock-soft text-lock">verdicts differ</span
				>{:else if item.outcome && item.outcome !== 'open'}<span
					><b>{item.outcome}</b> <span class="text-ink-2">{VERDICT_LABEL[item.outcome]}</span></span
				>{/if}{#if item.mayConsolidate}<button
					class="link text-[12px]"
					aria-label="Make one of the verdicts on {item.number}"
					onclick={() => consolidate(item)}>Make one of them…</button
				>{/if}</span
		>
		{#if item.consolidated}<span class="block text-[12px] text-ink-2"
				>{item.consolidated.by}: {item.consolidated.reason}</span
			>{/if}
		{#each item.verdicts as one, i (i)}<span class="block text-[12px]"
				>{one.company}: {@render said(item, one)}{#if !one.code}<span class="text-ink-2">none yet</span
					>{/if}</span
			>{/each}{/if}{/snippet}
{#snippet said(item: Item, one: Item['verdicts'][number])}{#if one.code}<b>{one.code}</b>
		<span class="text-ink-2">{VERDICT_LABEL[one.code]}{one.remark ? `: ${one.remark}` : ''}</span>
		{#if one.placed}<span class="block text-[12px] text-ink-2"
				>{plural(one.placed, 'remark')} on the sheet</span
			>{/if}{#if one.drawn}<a
				class="link block w-fit text-[12px] leading-6"
				href="{address}/releases/{release}/view/{item.documentId}"
				aria-label="Marks of {one.company} drawn on {item.number}">{plural(one.drawn, 'mark')} drawn on it</a
			>{/if}{#each one.sides as side (side)}{#if item.mayView}<a
					class="link block w-fit text-[12px] leading-6"
					href="{address}/document/{item.documentId}?side={side}">marked-up file, side {side}</a
				>{:else}<span class="block text-[12px] text-ink-2">marked-up file, side {side}</span
				>{/if}{/each}{/if}{/snippet}
{#snippet checked(item: Item, { id }: Column<Item>)}{@const check = item.checks.find(
		(c) => c.name === id
	)}<span class={check ? SIGN[check.result][1] : ''} title={check?.sentence}
		>{#if check?.accepted}<span class="text-done">(!)</span><span class="sr-only"
				>accepted: {check.sentence}</span
			>{:else if check}{SIGN[check.result][0]}<span class="sr-only"
				>{SIGN[check.result][2]}: {check.sentence}</span
			>{/if}</span
	>{/snippet}
{#snippet looked(item: Item)}{#if item.looked}<span class="text-done">opened it</span>{:else}<span
			class="text-ink-2">not opened yet</span
		>{/if}{/snippet}
{#snippet leave(item: Item)}{#if mayChange}<button class="link" onclick={() => leaveOut(item.documentId)}
			>Leave out</button
		>{/if}{/snippet}
