<script lang="ts">
	import { refresh } from '$lib/ui/platform/refresh';
	import { onMount, untrack } from 'svelte';
	import { toast } from '$lib/ui/kit/toast';
	import { differences, releaseNumber, type Check } from '$lib/core/releases';
	import { PURPOSE_LABEL } from '$lib/core/revisions/revisions';
	import { addressOf, cupboard, type InputOf } from '$lib/client/cupboard';
	import { attempt } from '$lib/ui/platform/api';
	import { CHANGES, onTouched } from '$lib/ui/platform/live.svelte';
	import IssueDialog from '$lib/ui/releases/IssueDialog.svelte';
	import ReasonDialog from '$lib/ui/kit/ReasonDialog.svelte';
	import ReleaseDialog from '$lib/ui/releases/ReleaseDialog.svelte';
	import ReleaseItems from '$lib/ui/releases/ReleaseItems.svelte';
	import ReleaseState from '$lib/ui/releases/ReleaseState.svelte';
	import Stamp from '$lib/ui/releases/Stamp.svelte';
	import { dayText, plural, whenText } from '$lib/ui/platform/words';

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
	let accepting = $state<InputOf<'acceptChecks'>['checks']>([]);
	const open = $derived(['building', 'in-review', 'approved'].includes(about.state));
	/** The build as whoever decides has seen it; what changes under their eyes is said until they have looked. */
	let seen = $state.raw(untrack(() => data.build));
	const changes = $derived(seen && data.build ? differences(seen, data.build) : []);
	const asking = $derived(
		data.items.reduce((n, i) => n + i.checks.filter((c) => c.result === 'look' && !c.accepted).length, 0)
	);
	onMount(() =>
		onTouched(
			CHANGES,
			again,
			(n) => n.release === about.id || data.items.some((i) => i.documentId === n.document)
		)
	);

	async function act(word: string, doing: () => Promise<unknown>, said = '') {
		if (busy) return;
		busy = word;
		const answer = await attempt(doing);
		busy = '';
		if (answer && said) toast.success(said);
		await again();
	}
	const leaveOut = (document: string) =>
		act('leave', () => cupboard.leaveOut({ release: about.id, document }));
	const remedy = (document: string, check: Check) =>
		check.remedy === 'take-newest'
			? act('newest', () => cupboard.takeNewest({ release: about.id, document }))
			: leaveOut(document);
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
	<div class="min-w-0 px-5 py-3 max-sm:px-3 lg:overflow-auto">
		<div class="mb-3 flex flex-wrap items-center gap-2.5">
			<h1 class="text-[21px]">Release {number}</h1>
			<ReleaseState state={about.state} />
			<div class="ml-auto flex flex-wrap gap-2">
				{#if done}<a class="button" href={addressOf('coverNoteFile', { release: about.id })} target="_blank"
						>Cover note</a
					>{/if}
				{#if data.can.withdrawPass.may}<button
						class="button"
						onclick={() =>
							act(
								'withdraw',
								() => cupboard.withdrawPass({ release: about.id }),
								'The pass is withdrawn. Copies already downloaded stay where they are.'
							)}>Withdraw pass</button
					>{/if}
				{#if data.can.sendBack.may}<button class="button" onclick={() => (sendingBack = true)}
						>Send back</button
					>{/if}
				{#if data.can.approveRelease.may}
					<button
						class="button button-act"
						disabled={!!busy || changes.length > 0}
						onclick={() =>
							act(
								'approve',
								() => cupboard.approveRelease({ release: about.id, digest: data.digest! }),
								'Approved. The document controller can issue it now.'
							)}>Approve</button
					>
				{/if}
				{#if data.can.changeRelease.may}<button class="button" onclick={() => (editing = true)}
						>Change…</button
					>{/if}
				{#if data.can.cancelRelease.may}<button class="button" onclick={() => (cancelling = true)}
						>Cancel release…</button
					>{/if}
				{#if data.controller && about.state === 'building'}<button
						class="button button-act"
						disabled={!!busy || data.stopping > 0 || asking > 0 || !data.can.askApproval.may}
						title={data.can.askApproval.why}
						onclick={() =>
							act(
								'ask',
								() => cupboard.askApproval({ release: about.id }),
								`${about.approver} is asked to approve.`
							)}>Ask for approval</button
					>{/if}
				{#if data.can.issueRelease.may}<button
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
		{#if data.can.approveRelease.may && changes.length}
			<div class="mb-3 border-l-4 border-wait bg-wait-soft px-3 py-2" role="status">
				<b>Changed since you opened this page:</b>
				<ul class="list-disc pl-5">
					{#each changes as change (change)}<li>{change}</li>{/each}
				</ul>
				<button class="button mt-1" onclick={() => (seen = data.build)}>I have looked at it</button>
			</div>
		{/if}
		{#if data.can.sendBack.may && !data.can.approveRelease.may}<p class="mb-3 text-ink-2">
				{data.can.approveRelease.why}
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
			{#if asking}<span class="tag bg-lock-soft text-lock">! {asking} to look at</span>{/if}
			{#if open}<button class="button ml-auto" onclick={() => again()}>Run checks again</button>{/if}
		</div>
		<ReleaseItems
			items={data.items}
			address="/{code}"
			release={about.number}
			{done}
			mayMend={data.controller}
			mayChange={data.can.leaveOut.may}
			{leaveOut}
			{remedy}
			accept={(checks) => (accepting = checks)}
		/>
	</div>
	<aside class="min-w-0 border-l border-rule bg-sheet px-5 py-4 lg:overflow-auto">
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
{#if editing}<ReleaseDialog
		bind:open={editing}
		project={data.frame.project.id}
		{code}
		me={data.frame.me.id}
		documents={[]}
		edit={about}
		changed={again}
	/>{/if}
{#if issuing}<IssueDialog
		bind:open={issuing}
		release={about}
		items={data.items}
		issued={async (pass) => {
			link = pass;
			toast.success(`Release ${number} is issued and on its way.`);
			await again();
		}}
	/>{/if}
{#if cancelling}<ReasonDialog
		bind:open={cancelling}
		title="Cancel release {number}?"
		consequence="It is not issued, and its number is never used again. What was built stays to be looked at."
		button="Cancel release {number}"
		dangerous
		act={async (reason) => {
			await cupboard.cancelRelease({ release: about.id, reason });
			await again();
		}}
	/>{/if}
{#if accepting.length > 0}<ReasonDialog
		bind:open={() => accepting.length > 0, (open) => !open && (accepting = [])}
		title={accepting.length === 1 ? 'Goes out all the same?' : `${accepting.length} go out all the same?`}
		consequence="The reason stands in the trail and in the cover note, beside the document."
		button="Goes out"
		act={async (reason) => {
			await cupboard.acceptChecks({ release: about.id, checks: accepting, reason });
			await again();
		}}
	/>{/if}
{#if sendingBack}<ReasonDialog
		bind:open={sendingBack}
		title="Send release {number} back?"
		consequence="The build opens again for {about.builtBy}, who is told why."
		button="Send back"
		act={async (reason) => {
			await cupboard.sendBack({ release: about.id, reason });
			await again();
		}}
	/>{/if}
