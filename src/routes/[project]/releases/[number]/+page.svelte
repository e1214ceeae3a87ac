<script lang="ts">
	import { refresh } from '$lib/ui/refresh';
	import { onMount, untrack } from 'svelte';
	import { toast } from 'svelte-sonner';
	import {
		CHECK_LABEL,
		CHECKS,
		differences,
		releaseNumber,
		VERDICT_LABEL,
		type Check
	} from '$lib/core/releases';
	import { PURPOSE_LABEL } from '$lib/core/revisions/revisions';
	import { attempt, call } from '$lib/ui/api';
	import { onLive } from '$lib/ui/live.svelte';
	import IssueDialog from '$lib/ui/IssueDialog.svelte';
	import ReasonDialog from '$lib/ui/ReasonDialog.svelte';
	import ReleaseDialog from '$lib/ui/ReleaseDialog.svelte';
	import ReleaseState from '$lib/ui/ReleaseState.svelte';
	import Revision from '$lib/ui/Revision.svelte';
	import Stamp from '$lib/ui/Stamp.svelte';
	import { dayText, plural, whenText } from '$lib/ui/words';

	let { data } = $props();
	const code = $derived(data.frame.project.code.toLowerCase());
	const about = $derived(data.release);
	const done = $derived(about.state === 'issued' || about.state === 'superseded');
	const number = $derived(releaseNumber(about.number));
	const again = () => refresh('cupboard:release');
	let busy = $state('');
	let sendingBack = $state(false);
	let link = $state('');
	let editing = $state(false);
	let cancelling = $state(false);
	let issuing = $state(false);
	/** What goes out all the same, waiting for its reason. */
	let accepting = $state<{ document: string; check: string }[]>([]);
	const open = $derived(['building', 'in-review', 'approved'].includes(about.state));
	/** The build as whoever decides has seen it; what changes under their eyes is said until they have looked. */
	let seen = $state.raw(untrack(() => data.build));
	const changes = $derived(seen && data.build ? differences(seen, data.build) : []);
	/** Checks that say something; what is fine for all is said once. */
	const telling = $derived(
		CHECKS.filter((name) =>
			data.items.some((i) => i.checks.some((c) => c.name === name && c.result !== 'fine'))
		)
	);
	const looks = $derived(
		data.items.flatMap((item) =>
			item.checks.filter((c) => c.result === 'look').map((check) => ({ item, check }))
		)
	);
	const asking = $derived(looks.filter(({ check }) => !check.accepted));
	const faults = $derived(
		data.items.flatMap((item) =>
			item.checks.filter((c) => c.result === 'stops').map((check) => ({ item, check }))
		)
	);

	onMount(() =>
		onLive((notices) => {
			const ids = new Set(data.items.map((i) => i.documentId));
			if (
				notices.length === 0 ||
				notices.some((n) => n.release === about.id || (n.document && ids.has(n.document)))
			)
				void again();
		})
	);

	async function act(word: string, method: 'POST' | 'DELETE', path: string, said = '', body: object = {}) {
		if (busy) return;
		busy = word;
		const answer = await attempt(() =>
			call(method, `/releases/${about.id}${path}`, method === 'POST' ? body : undefined)
		);
		busy = '';
		if (answer && said) toast.success(said);
		await again();
	}
	const leaveOut = (document: string) => act('leave', 'DELETE', `/documents/${document}`);
	const remedy = (document: string, check: Check) =>
		check.remedy === 'take-newest'
			? act('newest', 'POST', `/documents/${document}/newest`)
			: leaveOut(document);
	const SIGN = {
		fine: ['✓', 'text-done', 'fine'],
		look: ['!', 'text-lock', 'look at it'],
		stops: ['✕', 'text-fault', 'stops']
	} as const;
</script>

{#snippet step(n: number, state: 'done' | 'now' | 'later', title: string, small: string)}
	<div class="flex items-center gap-3">
		<span
			class="grid h-8 w-8 shrink-0 place-items-center border-2 bg-sheet font-mono font-semibold {state ===
			'done'
				? '-rotate-3 border-done text-done'
				: state === 'now'
					? 'border-wait text-wait'
					: 'border-rule text-ink-2'}">{n}</span
		>
		<span><b class="font-semibold">{title}</b> <span class="text-[12px] text-ink-2">{small}</span></span>
	</div>
{/snippet}

<svelte:head><title>Release {number} · {data.frame.project.name}</title></svelte:head>
<div class="grid h-full overflow-auto lg:grid-cols-[1fr_320px] lg:overflow-hidden">
	<div class="px-5 py-3 lg:overflow-auto">
		<div class="mb-3 flex flex-wrap items-center gap-2.5">
			<h1 class="text-[21px]">Release {number}</h1>
			<ReleaseState state={about.state} />
			<div class="ml-auto flex flex-wrap gap-2">
				{#if done}<a class="button" href="/api/v1/release-files/{about.id}/cover-note" target="_blank"
						>Cover note</a
					>{/if}
				{#if done && data.controller && data.pass && !data.pass.withdrawnAt}<button
						class="button"
						onclick={() =>
							act(
								'withdraw',
								'DELETE',
								'/pass',
								'The pass is withdrawn. Copies already downloaded stay where they are.'
							)}>Withdraw pass</button
					>{/if}
				{#if data.mayApprove}
					<button class="button" onclick={() => (sendingBack = true)}>Send back</button>
					<button
						class="button button-act"
						disabled={!!busy || changes.length > 0}
						onclick={() =>
							act('approve', 'POST', '/approval', 'Approved. The document controller can issue it now.', {
								digest: data.digest
							})}>Approve</button
					>
				{/if}
				{#if data.controller && open}
					<button class="button" onclick={() => (editing = true)}>Change…</button>
					<button class="button" onclick={() => (cancelling = true)}>Cancel release…</button>
				{/if}
				{#if data.controller && about.state === 'building'}<button
						class="button button-act"
						disabled={!!busy || data.stopping > 0 || asking.length > 0 || !data.items.length}
						onclick={() => act('ask', 'POST', '/ask', `${about.approver} is asked to approve.`)}
						>Ask for approval</button
					>{/if}
				{#if data.controller && about.state === 'approved'}<button
						class="button button-act"
						disabled={!!busy || data.stopping > 0}
						onclick={() => (issuing = true)}>Issue…</button
					>{/if}
			</div>
		</div>
		{#if link}<p class="mb-3 border-l-4 border-done bg-done-soft px-3 py-2">
				Issued. The pass went out by mail to {about.recipient.email}:
				<a class="link break-all" href={link} target="_blank" rel="noreferrer">{link}</a>
			</p>{/if}
		{#if about.state === 'cancelled'}<p class="mb-3 border-l-4 border-fault bg-fault-soft px-3 py-2">
				<b>Cancelled {dayText(about.cancelledAt ?? about.createdAt)}:</b>
				{about.cancelledReason} The number is not used again.
			</p>{/if}
		{#if data.mayApprove && changes.length}
			<div class="mb-3 border-l-4 border-wait bg-wait-soft px-3 py-2" role="status">
				<b>Changed since you opened this page:</b>
				<ul class="list-disc pl-5">
					{#each changes as change (change)}<li>{change}</li>{/each}
				</ul>
				<button class="button mt-1" onclick={() => (seen = data.build)}>I have looked at it</button>
			</div>
		{/if}
		{#if data.hand && about.state === 'in-review' && !data.controller}<p class="mb-3 text-ink-2">
				You had a hand in this build, so somebody else decides on it.
			</p>{/if}
		{#if about.sentBackReason && about.state === 'building'}<p
				class="mb-3 border-l-4 border-fault bg-fault-soft px-3 py-2"
			>
				<b>{about.approver} sent it back:</b>
				{about.sentBackReason}
			</p>{/if}
		<dl
			class="mb-4 grid grid-cols-2 border border-ink bg-sheet sm:grid-cols-4 [&_dd]:font-semibold [&>div]:border-r [&>div]:border-b [&>div]:border-rule [&>div]:px-2.5 [&>div]:py-1.5"
		>
			<div class="col-span-2">
				<dt class="cell-label">Title</dt>
				<dd>{about.title}</dd>
			</div>
			<div>
				<dt class="cell-label">Purpose</dt>
				<dd>{PURPOSE_LABEL[about.purpose]}</dd>
			</div>
			<div>
				<dt class="cell-label">{done ? 'Issued' : 'Built'}</dt>
				<dd>
					{dayText(about.issuedAt ?? about.createdAt)}
					<span class="text-[12px] font-normal text-ink-2">by {about.issuedBy ?? about.builtBy}</span>
				</dd>
			</div>
			<div class="col-span-2">
				<dt class="cell-label">To</dt>
				<dd>
					{about.recipient.company}
					<span class="text-[12px] font-normal text-ink-2">{about.recipient.name}</span>
				</dd>
			</div>
			<div>
				<dt class="cell-label">Reply asked by</dt>
				<dd>{about.replyBy ? dayText(about.replyBy) : 'no day'}</dd>
			</div>
			<div>
				<dt class="cell-label">Pass</dt>
				<dd>
					{data.pass
						? data.pass.withdrawnAt
							? `withdrawn ${dayText(data.pass.withdrawnAt)}`
							: `open until ${dayText(data.pass.endsAt)}`
						: 'made at issue'}
				</dd>
			</div>
		</dl>
		<div class="mb-2 flex flex-wrap items-center gap-2">
			<h2 class="text-[15px]">{plural(data.items.length, 'document')}</h2>
			{#if data.stopping}<span class="tag bg-fault-soft text-fault"
					>✕ {data.stopping} {data.stopping === 1 ? 'stops' : 'stop'} the release</span
				>{/if}
			{#if asking.length}<span class="tag bg-lock-soft text-lock">! {asking.length} to look at</span>{/if}
			{#if open}<button class="button ml-auto" onclick={() => again()}>Run checks again</button>{/if}
		</div>
		<div class="overflow-x-auto">
			<table class="w-full min-w-[560px] bg-sheet">
				<thead class="text-[12px]"
					><tr class="border-b border-ink bg-film">
						<th class="py-1.5 pl-2">Number</th><th>Title</th><th>{done ? 'Revision' : 'Goes from → to'}</th>
						{#if done}<th>Now</th><th>Client</th>{:else}{#each telling as c (c)}<th class="px-1 text-center"
									>{CHECK_LABEL[c]}</th
								>{/each}{/if}<th><span class="sr-only">Do</span></th>
					</tr></thead
				>
				<tbody>
					{#each data.items as item (item.documentId)}
						<tr class="h-[34px] border-b border-rule-2">
							<td class="pr-3 pl-2 font-mono text-[12.5px] whitespace-nowrap">{item.number}</td>
							<td class="pr-3 font-semibold"
								>{#if item.mayLook}<a
										class="hover:text-act"
										href="/{code}/document/{item.documentId}?version={item.label}">{item.title}</a
									>{:else}<a
										class="hover:text-act"
										href="/{code}/releases/{about.number}/view/{item.documentId}">{item.title}</a
									>{/if}</td
							>
							<td class="whitespace-nowrap"
								>{#if !done && item.label !== item.to}<Revision
										label={item.label}
										issued={!item.label.includes('.')}
									/> →
									<span
										class="inline-block rounded-sm border border-ink px-1.5 font-mono text-[12px] leading-[18px] font-semibold"
										>{item.to}</span
									>{:else}<Revision label={item.to} issued={done || !item.label.includes('.')} />{/if}</td
							>
							{#if done}
								<td
									>{#if item.later}<span class="font-semibold text-fault"
											>superseded by {item.later.label}</span
										>{:else}<span class="text-done">current</span>{/if}</td
								>
								<td
									>{#if item.verdict}<b>{item.verdict.code}</b>
										<span class="text-ink-2"
											>{VERDICT_LABEL[item.verdict.code as keyof typeof VERDICT_LABEL]}{item.verdict.remark
												? `: ${item.verdict.remark}`
												: ''}</span
										>{/if}</td
								>
								<td></td>
							{:else}
								{#each telling as name (name)}
									{@const check = item.checks.find((c) => c.name === name)}
									<td
										class="text-center font-semibold {check ? SIGN[check.result][1] : ''}"
										title={check?.sentence}
										>{#if check?.accepted}<span class="text-done">(!)</span><span class="sr-only"
												>accepted: {check.sentence}</span
											>{:else if check}{SIGN[check.result][0]}<span class="sr-only"
												>{SIGN[check.result][2]}: {check.sentence}</span
											>{/if}</td
									>
								{/each}
								<td class="pr-2 text-right text-[12px] whitespace-nowrap"
									>{#if data.controller && open}<button class="link" onclick={() => leaveOut(item.documentId)}
											>Leave out</button
										>{/if}</td
								>
							{/if}
						</tr>
					{:else}<tr
							><td class="p-6 text-center text-ink-2" colspan="7"
								>No documents yet. Tick documents in a folder and put them in this release.</td
							></tr
						>{/each}
				</tbody>
			</table>
		</div>
		{#if !done && data.items.length && telling.length < CHECKS.length}
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
				{#if data.controller && check.remedy}<button
						class="button ml-auto"
						onclick={() => remedy(item.documentId, check)}
						>{check.remedy === 'take-newest' ? 'Take the newest' : 'Leave it out'}</button
					>{/if}
			</p>
		{/each}
		{#if looks.length}
			<section class="mt-4">
				<div class="mb-1 flex items-center gap-2">
					<h2 class="text-[15px]">To look at</h2>
					{#if data.controller && open && asking.length > 1}<button
							class="button ml-auto"
							onclick={() =>
								(accepting = asking.map(({ item, check }) => ({
									document: item.documentId,
									check: check.name
								})))}>All of these go out…</button
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
							{#if check.accepted}<b class="font-semibold">{check.accepted.by}: {check.accepted.reason}</b
								>{/if}</span
						>
						{#if data.controller && open}<button
								class="button ml-auto"
								onclick={() => (accepting = [{ document: item.documentId, check: check.name }])}
								>{check.accepted ? 'Another reason…' : 'Goes out…'}</button
							>{/if}
					</p>
				{/each}
			</section>
		{/if}
	</div>
	<aside class="border-l border-rule bg-sheet px-5 py-4 lg:overflow-auto">
		<h2 class="mb-3 text-[15px]">Route</h2>
		<ol class="space-y-4">
			<li>
				{@render step(1, 'done', 'Build', `${about.builtBy}, ${dayText(about.createdAt)}`)}
			</li>
			<li>
				{@render step(
					2,
					about.approvedAt ? 'done' : about.state === 'in-review' ? 'now' : 'later',
					'Approval',
					'by a second person'
				)}
				<div class="mt-1 pl-11">
					{#if about.approvedAt}<Stamp
							word="Approved"
							at={about.approvedAt}
							name={about.approver}
						/>{:else if about.askedAt}<p>
							{about.approver} <span class="text-[12px] text-ink-2">asked {whenText(about.askedAt)}</span>
						</p>{:else}<p class="text-ink-2">{about.approver}</p>{/if}
				</div>
			</li>
			<li>
				{@render step(
					3,
					about.issuedAt ? 'done' : about.state === 'approved' ? 'now' : 'later',
					'Document control',
					'revisions fixed, hashes written'
				)}
				<div class="mt-1 pl-11">
					{#if about.issuedAt}<Stamp word="Issued" at={about.issuedAt} name={about.issuedBy ?? ''} />{:else}<p
							class="text-ink-2"
						>
							Issues when it is approved and nothing stops it.
						</p>{/if}
				</div>
			</li>
			<li>
				{@render step(
					4,
					data.pass?.receivedAt ? 'done' : about.issuedAt ? 'now' : 'later',
					'Client',
					about.recipient.company
				)}
				<div class="mt-1 space-y-1 pl-11">
					{#if data.pass?.receivedAt}<Stamp
							word="Received"
							at={data.pass.receivedAt}
							name={about.recipient.name}
						/>{/if}
					{#if data.pass}<p class="text-ink-2">
							{data.pass.uses
								? `Opened ${plural(data.pass.uses, 'time')}, last ${whenText(data.pass.lastUsedAt!)}.`
								: 'Not opened yet.'}
							{data.items.filter((i) => i.verdict).length} of {data.items.length} verdicts.
						</p>{:else}<p class="text-ink-2">Receipt, then a code for each document</p>{/if}
				</div>
			</li>
		</ol>
		{#if about.manifestHash}<p class="mt-5 border-t border-rule pt-3 text-[12px] text-ink-2">
				Manifest, signed at issue<br /><span class="font-mono break-all">{about.manifestHash}</span>
			</p>{/if}
	</aside>
</div>
<ReleaseDialog
	bind:open={editing}
	project={data.frame.project.id}
	{code}
	me={data.frame.me.id}
	documents={[]}
	edit={about}
	changed={again}
/>
<IssueDialog
	bind:open={issuing}
	release={about}
	items={data.items}
	issued={async (pass) => {
		link = pass;
		toast.success(`Release ${number} is issued and on its way.`);
		await again();
	}}
/>
<ReasonDialog
	bind:open={cancelling}
	title="Cancel release {number}?"
	consequence="It is not issued, and its number is never used again. What was built stays to be looked at."
	button="Cancel release {number}"
	dangerous
	act={async (reason) => {
		await call('POST', `/releases/${about.id}/cancelled`, { reason });
		await again();
	}}
/>
<ReasonDialog
	bind:open={() => accepting.length > 0, (open) => !open && (accepting = [])}
	title={accepting.length === 1 ? 'Goes out all the same?' : `${accepting.length} go out all the same?`}
	consequence="The reason stands in the trail and in the cover note, beside the document."
	button="Goes out"
	act={async (reason) => {
		await call('POST', `/releases/${about.id}/accepted`, { checks: accepting, reason });
		await again();
	}}
/>
<ReasonDialog
	bind:open={sendingBack}
	title="Send release {number} back?"
	consequence="The build opens again for {about.builtBy}, who is told why."
	button="Send back"
	act={async (reason) => {
		await call('POST', `/releases/${about.id}/send-back`, { reason });
		await again();
	}}
/>
