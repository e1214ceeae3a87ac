<script lang="ts">
	import { goto } from '$app/navigation';
	import { page } from '$app/state';
	import { refresh } from '$lib/ui/platform/refresh';
	import { onMount, untrack, type ComponentProps } from 'svelte';
	import ConfirmDialog from '$lib/ui/kit/ConfirmDialog.svelte';
	import { toast } from '$lib/ui/kit/toast';
	import { differences, leavingWords, releaseNumber, suitabilityText, type Remedy } from '$lib/core/releases';
	import { PURPOSE_LABEL } from '$lib/core/revisions/revisions';
	import { addressOf, cupboard, type InputOf } from '$lib/client/cupboard';
	import Menu from '$lib/ui/kit/Menu.svelte';
	import { attempt } from '$lib/ui/platform/api';
	import { fetchFile } from '$lib/ui/platform/fetch-file';
	import { CHANGES, onTouched } from '$lib/ui/platform/live.svelte';
	import ReasonDialog from '$lib/ui/kit/ReasonDialog.svelte';
	import ReleaseDialog from '$lib/ui/releases/ReleaseDialog.svelte';
	import ConsolidateDialog from '$lib/ui/releases/ConsolidateDialog.svelte';
	import GetsDialog from '$lib/ui/releases/GetsDialog.svelte';
	import OrderDialog from '$lib/ui/releases/OrderDialog.svelte';
	import ListDialog from '$lib/ui/releases/ListDialog.svelte';
	import ReleaseRecipients from '$lib/ui/releases/ReleaseRecipients.svelte';
	import ReleaseItems from '$lib/ui/releases/ReleaseItems.svelte';
	import ReleaseState from '$lib/ui/releases/ReleaseState.svelte';
	import SendBackDialog from '$lib/ui/releases/SendBackDialog.svelte';
	import ReleaseSide from '$lib/ui/releases/ReleaseSide.svelte';
	import { dayText, plural } from '$lib/ui/platform/words';

	let { data } = $props();
	const code = $derived(data.frame.project.code.toLowerCase());
	const about = $derived(data.release);
	const done = $derived(about.state === 'issued' || about.state === 'superseded');
	const number = $derived(releaseNumber(about.number));
	/** The step whose turn it is, from 0; and how many approvals it lacks. */
	const turn = $derived(data.route.findIndex((one) => one.state === 'now'));
	const turnLeft = $derived(turn < 0 ? 0 : data.route[turn]!.needed - data.route[turn]!.given.length);
	const again = () => refresh('cupboard:release');
	let busy = $state('');
	let sendingBack = $state(false);
	/** Kept here once they came: the framework forgets what it handed over when the page is refreshed. */
	let passes = $state.raw<NonNullable<App.PageState['passes']>>([]);
	$effect(() => {
		if (page.state.passes) passes = page.state.passes;
	});
	let asking = $state<ComponentProps<typeof ConfirmDialog>['asking']>(null);
	let choosing = $state.raw<(typeof data.recipients)[number] | null>(null);
	let consolidating = $state.raw<(typeof data.items)[number] | null>(null);
	let editing = $state(false);
	let cancelling = $state(false);
	/** A colleague of a recipient who is not let in, waiting for the reason. */
	let refusing = $state.raw<(typeof data.recipients)[number]['colleagues'][number] | null>(null);
	let listing = $state(false);
	let ordering = $state(false);
	/** What goes out all the same, waiting for its reason. */
	let accepting = $state<InputOf<'acceptChecks'>['checks']>([]);
	const open = $derived(['building', 'in-review', 'approved'].includes(about.state));
	/** The build as whoever decides has seen it; what changes under their eyes is said until they have looked. */
	let seen = $state.raw(untrack(() => data.build));
	const changes = $derived(seen && data.build ? differences(seen, data.build) : []);
	const unlooked = $derived(
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
	async function another() {
		busy = 'another';
		const made = await attempt(() => cupboard.buildAnother({ release: about.id }));
		busy = '';
		if (!made) return;
		await goto(`/${data.frame.project.code.toLowerCase()}/releases/${made.number}`);
		toast.success(
			`This is release ${releaseNumber(made.number)}, to the same people by the same route.${made.gone ? ` ${plural(made.gone, 'document')} that ${made.gone === 1 ? 'is' : 'are'} not there any more stayed out.` : ''}`
		);
	}
	const leaveOut = (document: string) =>
		act('leave', () => cupboard.leaveOut({ release: about.id, document }));
	/** What mends each thing that a check finds, in one step. */
	const REMEDIES: Record<Remedy, (item: (typeof data.items)[number]) => unknown> = {
		'take-newest': ({ documentId: document }) =>
			act('newest', () => cupboard.takeNewest({ release: about.id, document })),
		'leave-out': ({ documentId }) => leaveOut(documentId),
		'add-references': ({ documentId: document }) =>
			act('references', () => cupboard.addReferences({ release: about.id, document })),
		'ask-holder': ({ documentId: document }) =>
			act(
				'holder',
				() => cupboard.askForLock({ document, note: `Release ${number} waits for it.` }),
				'Asked. Whoever has it in hand has a notice, and you are told when it is free.'
			),
		'settle-remarks': ({ documentId }) => goto(`/${code}/document/${documentId}/remarks`),
		'write-title-block': ({ documentId: document, to }) =>
			act(
				'title-block',
				async () => {
					await cupboard.writeTitleBlock({ document, revision: to });
					await cupboard.takeNewest({ release: about.id, document });
				},
				'Written, handed in as a new version, and that is in the release now.'
			)
	};
</script>

<svelte:head><title>Release {number} · {data.frame.project.name}</title></svelte:head>
<div class="grid h-full overflow-auto lg:grid-cols-[1fr_320px] lg:overflow-hidden">
	<div class="min-w-0 px-5 py-3 max-sm:px-3 lg:overflow-auto">
		<div class="mb-3 flex flex-wrap items-center gap-2.5">
			<h1 class="text-[21px]">Release {number}</h1>
			<ReleaseState
				state={about.state}
				step={about.state === 'in-review' && data.route.length > 1
					? `step ${turn + 1} of ${data.route.length}`
					: ''}
			/>
			<div class="ml-auto flex flex-wrap gap-2">
				{#if done}<a class="button" href={addressOf('coverNoteFile', { release: about.id })} target="_blank"
						>Cover note</a
					>{/if}
				{#if data.can.takeReleasePackage.may}<a
						class="button"
						href={addressOf('releasePackageFile', { release: about.id })}
						download
						title="Documents, cover notes, signed lists and answers as one zip that proves itself without Cupboard"
						>Package</a
					>{/if}
				{#if done && data.controller && data.recipients.some((one) => one.expects === 'verdicts')}<Menu
						label="Comment sheet"
						groups={[
							(['xlsx', 'pdf'] as const).map((format) => ({
								word: format.toUpperCase(),
								act: () => fetchFile(addressOf('releaseCommentSheet', { release: about.id, format }))
							}))
						]}
					/>{/if}
				{#if data.can.askApproval.may && !data.stopping && !unlooked && (about.state === 'in-review' || (about.state === 'approved' && turn >= 0))}<button
						class="button"
						disabled={!!busy}
						title="Whose turn it is has a notice again"
						onclick={() =>
							act(
								'ask',
								() => cupboard.askApproval({ release: about.id }),
								'Asked again. Whose turn it is has a notice.'
							)}>Ask again</button
					>{/if}
				{#if data.can.buildAnother.may}<button
						class="button"
						disabled={!!busy}
						title="A new release to the same people by the same route, with the newest versions of these documents"
						onclick={() => void another()}>Build another like it</button
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
								data.route.filter((one) => one.state !== 'done').length > 1 || turnLeft > 1
									? 'Approved. The next are asked once this step is done.'
									: 'Approved. The document controller can issue it now.'
							)}
						>Approve{data.route.length > 1 ? ` step ${turn + 1}` : ''}{data.decidesFor
							? ` for ${data.decidesFor}`
							: ''}</button
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
						disabled={!!busy || data.stopping > 0 || unlooked > 0 || !data.can.askApproval.may}
						title={data.can.askApproval.why}
						onclick={() =>
							act(
								'ask',
								() => cupboard.askApproval({ release: about.id }),
								'Asked. Whose turn it is has a notice.'
							)}>Ask for approval</button
					>{/if}
				{#if data.can.issueRelease.may}<a
						class="button button-act"
						href="/{code}/releases/{about.number}/issue">Issue…</a
					>{/if}
			</div>
		</div>
		{#if passes.length}<div class="mb-3 border-l-4 border-done bg-done-soft px-3 py-2">
				Issued. {plural(passes.length, 'pass', 'passes')} went out by mail:
				<ul>
					{#each passes as pass (pass.recipient)}<li>
							{pass.name}:
							<a class="link break-all" href={pass.link} target="_blank" rel="noreferrer">{pass.link}</a>
						</li>{/each}
				</ul>
			</div>{/if}
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
		{#if data.last?.says === 'sent-back' && about.state === 'building'}<p
				class="mb-3 border-l-4 border-fault bg-fault-soft px-3 py-2"
			>
				<b>{data.last.by} sent it back:</b>
				{data.last.reason}
			</p>{/if}
		<dl
			class="mb-4 grid grid-cols-2 border border-ink bg-sheet sm:grid-cols-5 [&_dd]:font-semibold [&>div]:border-r [&>div]:border-b [&>div]:border-rule [&>div]:px-2.5 [&>div]:py-1.5"
		>
			<div class="col-span-2">
				<dt class="cell-label">Title</dt>
				<dd>{about.title}</dd>
			</div>
			<div>
				<dt class="cell-label">Purpose</dt>
				<dd>
					{PURPOSE_LABEL[about.purpose]}
					<span class="block text-[12px] font-normal text-ink-2">{suitabilityText(about.suitability)}</span>
				</dd>
			</div>
			<div>
				<dt class="cell-label">{done ? 'Issued' : 'Built'}</dt>
				<dd>
					{dayText(about.issuedAt ?? about.createdAt)}
					<span class="text-[12px] font-normal text-ink-2">by {about.issuedBy ?? about.builtBy}</span>
				</dd>
			</div>
			<div>
				<dt class="cell-label">Reply asked by</dt>
				<dd>{about.replyBy ? dayText(about.replyBy) : 'no day'}</dd>
			</div>
		</dl>
		{#if about.stamped || about.withMarks}<p class="mb-4 border-l-4 border-plank-2 bg-sheet px-3 py-2">
				<span class="cell-label block">The documents {done ? 'left' : 'leave'}</span>{leavingWords(about)}, as
				far as their kinds carry it; the originals stay as they are.
			</p>{/if}
		{#if about.words}<p class="mb-4 border-l-4 border-plank-2 bg-sheet px-3 py-2 whitespace-pre-line">
				<span class="cell-label block">What is said to them</span>{about.words}
			</p>{/if}
		<ReleaseRecipients
			release={about}
			recipients={data.recipients}
			documents={data.items.length}
			mayChoose={data.can.changeRelease.may && data.recipients.length > 1}
			mayWithdraw={data.can.withdrawPass.may}
			mayAnswer={data.can.letColleagueIn.may}
			letIn={(one) =>
				void act(
					'colleague',
					() => cupboard.letColleagueIn({ release: about.id, colleague: one.id }),
					`${one.name} has a pass of their own by mail.`
				)}
			refuse={(one) => (refusing = one)}
			choose={(one) => (choosing = one)}
			withdraw={(one) =>
				(asking = {
					title: `Withdraw the pass of ${one.name}?`,
					text: `Their link to release ${number} stops at once. Copies already downloaded stay where they are.`,
					button: 'Withdraw pass',
					act: () => cupboard.withdrawPass({ release: about.id, recipient: one.recipient })
				})}
		/>
		<div class="mb-2 flex flex-wrap items-center gap-2">
			<h2 class="text-[15px]">{plural(data.items.length, 'document')}</h2>
			{#if data.stopping}<span class="tag bg-fault-soft text-fault"
					>✕ {data.stopping} {data.stopping === 1 ? 'stops' : 'stop'} the release</span
				>{/if}
			{#if unlooked}<span class="tag bg-lock-soft text-lock">! {unlooked} to look at</span>{/if}
			{#if open}<span class="ml-auto flex flex-wrap gap-2"
					>{#if data.can.addListed.may}<button class="button" onclick={() => (listing = true)}
							>Add by list…</button
						>{/if}{#if data.can.orderDocuments.may && data.items.length > 1}<button
							class="button"
							onclick={() => (ordering = true)}>Order…</button
						>{/if}<button class="button" onclick={() => again()}>Run checks again</button></span
				>{/if}
		</div>
		<ReleaseItems
			items={data.items}
			address="/{code}"
			release={about.number}
			releaseId={about.id}
			{done}
			deciding={data.can.sendBack.may}
			mayMend={data.controller}
			mayChange={data.can.leaveOut.may}
			sentBack={open && data.last
				? new Map(data.last.documents.map((one) => [one.document, `${data.last!.by}: ${one.reason}`]))
				: new Map()}
			{leaveOut}
			remedy={(item, check) => check.remedy && REMEDIES[check.remedy](item)}
			consolidate={(item) => (consolidating = item)}
			accept={(checks) => (accepting = checks)}
		/>
	</div>
	<aside class="min-w-0 border-l border-rule bg-sheet">
		<ReleaseSide view={data} {code} />
	</aside>
</div>
{#if editing}<ReleaseDialog
		bind:open={editing}
		project={data.frame.project.id}
		{code}
		me={data.frame.me.id}
		documents={[]}
		edit={{
			...about,
			recipients: data.recipients,
			route: data.route.map(({ name, of, needs, days }) => ({
				name,
				of: of.map(({ kind, id }) => ({ kind, id })),
				needs,
				days
			}))
		}}
		changed={again}
	/>{/if}
{#if asking}<ConfirmDialog bind:asking done={again} />{/if}
{#if choosing !== null}<GetsDialog
		bind:open={() => choosing !== null, (open) => !open && (choosing = null)}
		project={data.frame.project.id}
		release={about.id}
		recipients={data.recipients}
		of={choosing}
		items={data.items}
		changed={again}
	/>{/if}
{#if consolidating !== null}<ConsolidateDialog
		bind:open={() => consolidating !== null, (open) => !open && (consolidating = null)}
		release={about.id}
		item={consolidating}
		changed={again}
	/>{/if}
{#if ordering}<OrderDialog bind:open={ordering} release={about.id} items={data.items} changed={again} />{/if}
{#if listing}<ListDialog bind:open={listing} release={about.id} changed={again} />{/if}
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
{#if refusing !== null}<ReasonDialog
		bind:open={() => refusing !== null, (open) => !open && (refusing = null)}
		title="Refuse {refusing.name}?"
		consequence="{refusing.askedBy} is told why by mail; their own pass works as before."
		button="Refuse"
		act={async (reason) => {
			await cupboard.refuseColleague({ release: about.id, colleague: refusing!.id, reason });
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
{#if sendingBack}<SendBackDialog
		bind:open={sendingBack}
		release={about}
		items={data.items}
		changed={again}
	/>{/if}
