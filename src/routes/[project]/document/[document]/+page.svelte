<script lang="ts">
	import { isSheetKind } from '$lib/core/files/kinds';
	import { goto, replaceState } from '$app/navigation';
	import { readAhead, refresh } from '$lib/ui/platform/refresh';
	import { onMount, setContext, untrack } from 'svelte';
	import { page } from '$app/state';
	import { toast } from '$lib/ui/kit/toast';
	import { addressOf, cupboard } from '$lib/client/cupboard';
	import { attempt } from '$lib/ui/platform/api';
	import AccessPanel from '$lib/ui/documents/AccessPanel.svelte';
	import ReferencesPanel from '$lib/ui/references/ReferencesPanel.svelte';
	import DetailsPanel from '$lib/ui/documents/DetailsPanel.svelte';
	import type { Offer } from '$lib/ui/documents/offers';
	import { side, type SideTab } from '$lib/ui/documents/side-tab.svelte';
	import TrailPanel from '$lib/ui/trail/TrailPanel.svelte';
	import VersionList from '$lib/ui/documents/VersionList.svelte';
	import DocumentActions from '$lib/ui/documents/DocumentActions.svelte';
	import AddDocuments from '$lib/ui/adding/AddDocuments.svelte';
	import type { Batch } from '$lib/ui/adding/files';
	import { KEEP_FILES, type KeepFiles } from '$lib/ui/viewers/keep-files';
	import { flipFrom, type Flip } from '$lib/ui/places/flip';
	import { allows } from '$lib/core/access/levels';
	import { AREAS } from '$lib/core/events/event';
	import { ON_SCREEN } from '$lib/ui/live/kinds';
	import { onTouched } from '$lib/ui/platform/live.svelte';
	import LockTag from '$lib/ui/locks/LockTag.svelte';
	import { Remarks } from '$lib/ui/remarks/remarks.svelte';
	import ReleaseDialog from '$lib/ui/releases/ReleaseDialog.svelte';
	import Revision from '$lib/ui/documents/Revision.svelte';
	import RevisionRail from '$lib/ui/documents/RevisionRail.svelte';
	import SheetDocument from '$lib/ui/viewers/SheetDocument.svelte';
	import SideVersions from '$lib/ui/documents/SideVersions.svelte';
	import { useShortcuts } from '$lib/ui/platform/shortcuts.svelte';
	import Viewer from '$lib/ui/viewers/Viewer.svelte';

	let { data } = $props();
	const code = $derived(data.frame.project.code.toLowerCase());
	const mayRelease = $derived(data.frame.me.controller && !data.view.onDesk);
	const row = $derived(data.view.row);
	/** The side version that is looked at. */
	const sideFile = $derived({ document: row.id, side: data.side?.number });
	const newest = $derived(data.version.label === row.label);
	/** A version of a live document is looked at; the document itself has gone on. */
	const older = $derived(!newest || (data.view.room !== null && !data.live));
	let remarks = $state.raw(untrack(() => new Remarks(data.view.row.id)));
	$effect.pre(() => {
		if (remarks.document !== row.id) remarks = new Remarks(row.id);
	});
	$effect(() => {
		const named = Number(page.url.searchParams.get('remark'));
		const these = remarks;
		void these.load().then(() => {
			if (named) these.chosen = named;
		});
	});
	/** Beside the sheet where there is room; over it on a phone, when asked for. */
	let beside = $state(false);
	/** The pointer is for marks. */
	let marking = $state(false);
	const onSheet = $derived(!data.live && !data.side && isSheetKind(data.version.mediaType));
	/** Who marks up here; not who looks as somebody else. */
	const marks = $derived.by(() => {
		if (data.trying) return null;
		const { me, departments } = data.frame;
		const mine = departments.find((d: { id: string }) => me.departments.includes(d.id));
		return { me: { id: me.id, name: me.name }, layer: mine?.code ?? '', mode: data.view.marksMode };
	});
	let actions = $state<ReturnType<typeof DocumentActions>>();
	let releasing = $state(false);
	let chosen = $state<{ from: string; to: string } | null>(null);
	/** What comparing would begin with: what was issued last before this version, or the version before. */
	const pair = $derived.by(() => {
		if (chosen) return chosen;
		const at = data.view.versions.findIndex((v) => v.label === data.version.label);
		const earlier = data.view.versions.slice(at + 1);
		const from = earlier.find((v) => v.issued) ?? earlier[0];
		return from ? { from: from.label, to: data.version.label } : null;
	});
	const compare = () =>
		pair && void goto(`/${code}/document/${row.id}/compare?from=${pair.from}&to=${pair.to}`);
	const folder = $derived(data.view.way.at(-1) ?? null);
	/** Files that lie within the one shown, being added beside it. */
	let keeping = $state.raw<Batch | null>(null);
	setContext<KeepFiles>(KEEP_FILES, {
		get keep() {
			if (!folder || data.trying || !allows(data.view.level, 'work')) return null;
			return (files: File[]) =>
				(keeping = { files: files.map((file) => ({ file, folders: [] })), empty: [] });
		}
	});
	const again = () => refresh('cupboard:document');

	// Told apart by what they are: the page is loaded again whenever somebody does something here.
	const here = $derived(row.id);
	const around = $derived(folder?.id);
	const shownLabel = $derived(data.side ? null : data.version.label);
	let flip = $state.raw<Flip | null>(null);
	$effect(() => {
		const [document, place] = [here, around];
		if (!place) return void (flip = null);
		void flipFrom(document, place)
			.then((found) => {
				if (document !== row.id) return;
				flip = found;
				// The next one is most likely wanted; what it shows is fetched only when it is opened, and noted then.
				if (found?.after) void readAhead(`/${code}/document/${found.after}`);
			})
			.catch(() => (flip = null));
	});
	const flipTo = (id: string | null | undefined) => id && void goto(`/${code}/document/${id}`);

	/** All but remarks, which are asked for by themselves, and what was only looked at. */
	const SHOWN_HERE = AREAS.filter((area) => area !== 'remarks' && area !== 'openings');
	onMount(() =>
		onTouched(
			['remarks'],
			() => remarks.load(),
			(n) => n.document === row.id
		)
	);
	onMount(() => onTouched(SHOWN_HERE, again, (n) => n.document === row.id));
	$effect(() =>
		useShortcuts([
			{ key: 'l', says: 'Lock', run: () => actions?.startLock() },
			{ key: 'h', says: 'Hand in', run: () => actions?.startHandIn() },
			{
				key: 't',
				says: 'Trail',
				run: () => (side.tab = 'trail')
			},
			{ key: 'b', says: 'Keep at hand, or no longer', run: () => actions?.startBookmark() },
			{ key: 'c', says: 'Compare', run: compare },
			{ key: 'n', says: 'Next document of the list', run: () => flipTo(flip?.after) },
			{ key: 'p', says: 'Document before', run: () => flipTo(flip?.before) },
			{ key: 'a', says: 'Access', run: () => void goto(`/${code}/access/${row.id}`) },
			{ key: 'r', says: 'Put in release', run: () => mayRelease && (releasing = true) }
		])
	);
	$effect(() => {
		if (shownLabel !== null)
			void cupboard.openDocument({ document: here, label: shownLabel }).catch(() => {});
	});
	async function restore(label: string) {
		const what = { document: row.id, label };
		const made: { label?: string } | null = await attempt<{ label?: string }>(() =>
			data.view.room ? cupboard.restoreLive(what) : cupboard.restoreVersion(what)
		);
		if (!made) return;
		toast.success(
			made.label
				? `${label} is restored as ${made.label}; every version in between is kept.`
				: `The live ${data.view.room?.kind} holds again what ${label} held.`
		);
		await goto(`/${code}/document/${row.id}`);
	}
	/** Whoever may only look is shown what the server made of a file, and never gets the file. */
	const mayShowOriginal = $derived(allows(data.view.level, 'download'));
	/** The same for as long as the kind is the same, so that nobody loses their place when something is read again. */
	const livePage = $derived(data.live ? ON_SCREEN[data.live.kind].page() : null);
	const mayRestore = $derived(
		(data.view.room ? data.view.can.restoreLive : data.view.can.restoreVersion).may
	);
	/** What stands beside the document, whatever it is; remarks come first, by what shows it. */
	const more = $derived<SideTab[]>([
		{ value: 'versions', word: `Versions ${data.view.versions.length}`, panel: versionsPanel },
		{ value: 'references', word: 'References', panel: referencesPanel },
		{ value: 'access', word: 'Access', panel: accessPanel },
		{ value: 'trail', word: 'Trail', panel: trailPanel },
		{ value: 'details', word: 'Details', panel: detailsPanel }
	]);
	/** What this page offers beside the document's own acts. */
	const offers = $derived<Offer[]>([
		...(onSheet && (data.view.marksMode !== 'read' || data.view.marked.includes(data.version.label))
			? [
					{
						id: 'mark-up',
						group: 'work' as const,
						word: marking ? 'End marking up' : 'Mark up',
						on: marking,
						act: () => (marking = !marking)
					}
				]
			: []),
		{
			id: 'remarks',
			group: 'show',
			word: 'Remarks as a table',
			href: `/${code}/document/${row.id}/remarks`
		}
	]);
	/** What was asked for on the way here, once: handing in, from Today. */
	onMount(() => {
		if (page.url.searchParams.get('do') !== 'hand-in') return;
		actions?.startHandIn();
		replaceState(`/${code}/document/${row.id}`, {});
	});
</script>

<svelte:head><title>{row.number} {row.title}</title></svelte:head>
<div class="flex h-full flex-col">
	<div class="flex flex-wrap items-center gap-x-2.5 gap-y-1.5 border-b border-rule bg-sheet px-4 py-2">
		<p class="text-ink-2">
			{#each data.view.way as step (step.id)}<a
					class="hover:text-ink"
					href="/{code}/place/{step.id}{step.id === folder?.id ? `?document=${row.id}` : ''}">{step.name}</a
				>
				<span class="mx-1">/</span>{/each}
		</p>
		<span class="font-mono">{row.number}</span>
		<h1 class="text-[16px]">{row.title}</h1>
		{#if data.live}<span class="tag bg-done-soft text-done">Edited together since</span>{/if}
		<Revision label={data.version.label} issued={data.version.issued} />
		{#if row.lock}<LockTag lock={row.lock} compact />{#if row.lock.stale}<span class="text-[12px] text-fault"
					>stale</span
				>{/if}{/if}
		<div class="md:ml-auto">
			<DocumentActions
				bind:this={actions}
				view={data.view}
				project={data.frame.project.id}
				{code}
				controller={mayRelease}
				outsideLevel={data.frame.project.outsideLevel}
				retentionDays={data.frame.project.retentionDays}
				onPage
				more={offers}
				changed={again}
				putInRelease={() => (releasing = true)}
			/>
		</div>
		<!-- Its place is kept until the list is known: what stands beside it must not move away under a pointer. -->
		<span
			class="flex items-center gap-1.5 whitespace-nowrap max-md:ml-auto md:border-l md:border-rule md:pl-2.5"
			class:invisible={!flip}
		>
			<button
				class="button"
				aria-label="Document before"
				title="Document before (P)"
				disabled={!flip?.before}
				onclick={() => flipTo(flip?.before)}>◂</button
			>
			<span class="min-w-[8ch] text-center font-mono text-[12px] text-ink-2"
				>{flip ? `${flip.at} of ${flip.of}` : ''}</span
			>
			<button
				class="button"
				aria-label="Next document"
				title="Next document (N)"
				disabled={!flip?.after}
				onclick={() => flipTo(flip?.after)}>▸</button
			>
		</span>
		<button class="button lg:hidden" aria-expanded={beside} onclick={() => (beside = !beside)}
			>{beside ? 'Sheet' : `Remarks ${remarks.open.length}`}</button
		>
	</div>
	{#if data.view.sides.some((s) => s.state === 'open')}<SideVersions
			view={data.view}
			{code}
			changed={again}
		/>{/if}
	{#if data.side}
		<p class="flex items-center gap-3 bg-wait-soft px-4 py-1.5">
			<span
				><b>This is side version {data.side.number},</b> handed in by {data.side.by} without the lock. The newest
				on the line is {row.label}.</span
			>
			<a class="link font-semibold" href="/{code}/document/{row.id}">Open {row.label}</a>
		</p>
	{:else if older}
		<p class="flex items-center gap-3 bg-fault-soft px-4 py-1.5 text-fault">
			<span
				>{#if newest}<b>This is {data.version.label}, as it was handed in.</b> The {data.view.room?.kind} has gone
					on since.{:else}<b>This is {data.version.label}, not the newest.</b>
					The newest is {row.label}.{/if}</span
			>
			<a class="link font-semibold" href="/{code}/document/{row.id}"
				>{data.view.room ? `Open the live ${data.view.room.kind}` : `Open ${row.label}`}</a
			>
			{#if mayRestore}<button class="link" onclick={() => restore(data.version.label)}
					>Restore {data.version.label} as a new version</button
				>{/if}
		</p>
	{/if}
	<div class="min-h-0 flex-1">
		{#if data.live}
			{#key data.live.name}
				{@const here = {
					room: data.live.name,
					mode: data.live.mode,
					me: { id: data.frame.me.id, name: data.frame.me.name },
					document: row.id,
					number: row.number,
					code,
					versions: data.view.versions,
					title: row.title,
					mayDownload: mayShowOriginal,
					mayManage: allows(data.view.level, 'manage'),
					departments: data.frame.departments,
					mine: data.frame.me.departments,
					remarks,
					more
				}}
				{#await livePage then LivePage}{#if LivePage}<LivePage {...here} />{/if}{/await}
			{/key}
		{:else if data.side}<Viewer
				file={mayShowOriginal ? addressOf('sideFile', sideFile) : null}
				made={addressOf('sideShown', sideFile)}
				download={mayShowOriginal ? addressOf('sideFile', { ...sideFile, download: '' }) : null}
				title="{row.number} {row.title}"
				mediaType={data.side.mediaType}
				fileName={data.side.fileName}
				size={data.side.size}
			/>
		{:else}<SheetDocument
				document={row.id}
				name="{row.number} {row.title}"
				version={data.version}
				versions={{ all: data.view.versions, marked: data.view.marked }}
				{newest}
				{remarks}
				{marks}
				mayDownload={mayShowOriginal}
				codes={data.frame.departments.map((d: { code: string }) => d.code)}
				stamps={data.frame.project.stamps}
				{code}
				{marking}
				bind:beside
				{more}
				refreshed={again}
			/>
		{/if}
	</div>
	<RevisionRail
		versions={data.view.versions}
		current={data.version.label}
		base="/{code}/document/{row.id}"
		{pair}
		choose={(from, to) => (chosen = { from, to })}
	/>
</div>
{#snippet versionsPanel()}<VersionList
		document={row.id}
		versions={data.view.versions}
		shown={data.version.label}
		{code}
		mayDownload={mayShowOriginal}
		restore={mayRestore ? restore : null}
	/>{/snippet}
{#snippet referencesPanel()}<ReferencesPanel document={row.id} {code} />{/snippet}
{#snippet accessPanel()}<AccessPanel document={row.id} {code} />{/snippet}
{#snippet trailPanel()}<TrailPanel
		of={row.id}
		read={(place, page) => cupboard.trail({ place, ...page })}
		changed="{row.changedAt} {row.lock?.since}"
		{code}
	/>{/snippet}
{#snippet detailsPanel()}<DetailsPanel view={data.view} />{/snippet}
{#if keeping && folder}<AddDocuments
		first={keeping}
		place={folder}
		project={data.frame.project}
		close={() => (keeping = null)}
	/>{/if}
{#if mayRelease}{#if releasing}<ReleaseDialog
			bind:open={releasing}
			project={data.frame.project.id}
			{code}
			me={data.frame.me.id}
			documents={[row.id]}
		/>{/if}{/if}
