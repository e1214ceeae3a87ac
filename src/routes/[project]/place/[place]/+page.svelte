<script lang="ts">
	import { later } from '$lib/ui/kit/later';
	import type { Area } from '$lib/core/events/event';
	import { goto } from '$app/navigation';
	import { refresh } from '$lib/ui/platform/refresh';
	import { page } from '$app/state';
	import { onMount, untrack } from 'svelte';
	import { SvelteSet } from 'svelte/reactivity';
	import { toast } from '$lib/ui/kit/toast';
	import type { Notice } from '$lib/core/documents/rows';
	import type { ReachSummary } from '$lib/core/access/rows';
	import AddDocuments from '$lib/ui/adding/AddDocuments.svelte';
	import { cupboard } from '$lib/client/cupboard';
	import { CallError } from '$lib/client/call';
	import { attempt } from '$lib/ui/platform/api';
	import Avatar from '$lib/ui/kit/Avatar.svelte';
	import type DocumentActions from '$lib/ui/documents/DocumentActions.svelte';
	import type { DocumentView } from '$lib/ui/documents/document-view';
	import DocumentList from '$lib/ui/places/DocumentList.svelte';
	import { gatherDropped, type Batch } from '$lib/ui/adding/files';
	import { bookmark } from '$lib/ui/today/bookmark';
	import FreezeButton from '$lib/ui/access/FreezeButton.svelte';
	import FolderMenu from '$lib/ui/places/FolderMenu.svelte';
	import FolderTree from '$lib/ui/places/FolderTree.svelte';
	import { onLive } from '$lib/ui/platform/live.svelte';
	import { useShortcuts } from '$lib/ui/platform/shortcuts.svelte';
	import { moveMany } from '$lib/ui/places/selection';
	import { FolderRows } from '$lib/ui/places/rows.svelte';
	import SelectionMenu from '$lib/ui/places/SelectionMenu.svelte';
	import TitleBlock from '$lib/ui/places/TitleBlock.svelte';
	import { ended } from '$lib/core/words/sentences';
	import { dayText, placeWord, plural } from '$lib/ui/platform/words';

	let { data } = $props();
	const code = $derived(data.frame.project.code.toLowerCase());
	const mayWork = $derived(data.can.addDocument.may);
	/** Nothing goes out from a desk. */
	const mayRelease = $derived(data.frame.me.controller && !data.place.onDesk);

	const keepFolder = () => void bookmark(data.frame.project.id, data.place, () => refresh('cupboard:folder'));
	let freezing = $state<ReturnType<typeof FreezeButton>>();
	const documents = new FolderRows((place, after) =>
		attempt(() => cupboard.documentsIn({ place, after, limit: '2000' })).then((page) => page ?? null)
	);
	const { rows } = $derived(documents);
	let view = $state.raw<DocumentView | null>(null);
	let tab = $state('versions');
	let actions = $state<ReturnType<typeof DocumentActions>>();
	const selection = new SvelteSet<string>();
	let adding = $state<Batch | null>(null);
	let releasing = $state(false);
	let dragging = $state(false);
	/** Whether folders show pictures instead of lines, as one chose last. */
	let pictures = $state(false);
	onMount(() => (pictures = localStorage.getItem('cupboard-pictures') === 'yes'));
	function showPictures(yes: boolean) {
		pictures = yes;
		localStorage.setItem('cupboard-pictures', yes ? 'yes' : 'no');
	}
	const folders = $derived(data.tree.filter((f) => f.parentId === data.place.id));
	const selectedFolders = $derived(folders.filter((f) => selection.has(f.id)).map((f) => f.id));
	const selectedDocuments = $derived([...selection].filter((id) => !selectedFolders.includes(id)));
	const chosen = $derived(page.url.searchParams.get('document'));
	const forRelease = $derived(selectedDocuments.length ? selectedDocuments : view ? [view.row.id] : []);

	// A new folder, or the same one loaded again: take its first rows, then ask for the rest.
	$effect(() => {
		const { place, rows: first, direct } = data;
		untrack(() => {
			if (place.id !== tickedIn) selection.clear();
			tickedIn = place.id;
			void documents.take(place.id, first, direct).then((all) => all && unselectGone());
		});
	});
	let tickedIn = '';
	/** What is no longer here is not ticked. */
	function unselectGone() {
		const here = new Set([...rows, ...folders].map((one) => one.id));
		for (const id of selection) if (!here.has(id)) selection.delete(id);
	}

	// Who else reaches what is shown comes after the list itself.
	interface Reached {
		summaries: ReachSummary[];
		head: { id: string; name: string; outside: boolean }[];
		people: number;
	}
	let reach = $state.raw<Reached | null>(null);
	const summaries = $derived(new Map(reach?.summaries.map((s) => [s.scope, s])));
	$effect(() => {
		void data.rows;
		const place = data.place.id;
		void cupboard
			.reachOf({ place })
			.then((answer) => place === data.place.id && (reach = answer))
			.catch(() => (reach = null));
	});

	$effect(() => {
		void chosen;
		untrack(() => void loadView());
	});
	async function loadView() {
		if (!chosen) {
			view = null;
			return;
		}
		const wanted = chosen;
		try {
			const answer = await cupboard.documentView({ document: wanted });
			if (wanted === chosen) view = answer;
		} catch (error) {
			if (error instanceof CallError && error.code === 'not-found') view = null;
		}
	}

	/** Asks again for one row after somebody changed it; what is gone leaves the list. */
	async function refreshRow(id: string) {
		try {
			const row = await cupboard.documentRow({ document: id });
			if (row.folder === data.place.id) documents.put(row);
			else documents.drop(id);
		} catch (error) {
			if (error instanceof CallError && error.code === 'not-found') documents.drop(id);
		}
	}
	/** What changes the list as a whole, and not only single rows. */
	const SHAPES: readonly Area[] = ['places', 'access', 'people', 'passes', 'releases'];
	function onNotices(notices: Notice[]) {
		const documents = new Set(
			notices
				.filter((n) => n.document && n.touches.some((area) => area !== 'openings'))
				.map((n) => n.document!)
		);
		const mine = [...documents].filter(
			(id) =>
				rows.some((r) => r.id === id) || notices.some((n) => n.document === id && n.parent === data.place.id)
		);
		const shape =
			notices.length === 0 ||
			mine.length > 30 ||
			notices.some((n) => n.touches.some((area) => SHAPES.includes(area)));
		if (shape) void refresh('cupboard:folder');
		if (mine.length <= 30) mine.forEach((id) => void refreshRow(id));
		if (notices.length === 0 || (chosen && notices.some((n) => n.document === chosen))) void loadView();
	}
	onMount(() => onLive(onNotices));

	function choose(id: string | null) {
		const query = id ? `?document=${id}` : '?';
		void goto(query, { replaceState: true, keepFocus: true, noScroll: true });
	}
	function changed() {
		if (chosen) void refreshRow(chosen);
		void loadView();
	}
	const open = (id: string) => void goto(`/${code}/document/${id}`);

	$effect(() =>
		useShortcuts([
			{ key: 'l', says: 'Lock', run: () => actions?.startLock() },
			{ key: 'h', says: 'Hand in', run: () => actions?.startHandIn() },
			{ key: 'o', says: 'Open', run: () => chosen && open(chosen) },
			{
				key: 'c',
				says: 'Compare',
				run: () => {
					// Two ticked documents with each other; otherwise the chosen one with what was before it.
					const [one, two] = selectedDocuments;
					if (one && two && selectedDocuments.length === 2)
						void goto(`/${code}/document/${one}/compare?with=${two}`);
					else if (chosen) void goto(`/${code}/document/${chosen}/compare`);
				}
			},
			{
				key: 'b',
				says: 'Keep at hand, or no longer',
				run: () => (chosen ? actions?.startBookmark() : keepFolder())
			},
			{ key: 'a', says: 'Access', run: () => void goto(`/${code}/access/${chosen ?? data.place.id}`) },
			{ key: 't', says: 'Trail', run: () => (tab = tab === 'trail' ? 'versions' : 'trail') },
			{ key: 'r', says: 'Put in release', run: () => mayRelease && forRelease.length && (releasing = true) }
		])
	);

	async function drop(event: DragEvent) {
		event.preventDefault();
		dragging = false;
		if (!mayWork || !event.dataTransfer) return;
		const batch = await gatherDropped(event.dataTransfer);
		if (batch.files.length || batch.empty.length) adding = batch;
		else toast('Nothing that can be added was dropped.');
	}
</script>

<svelte:head><title>{data.place.name} · {data.frame.project.name}</title></svelte:head>
<div
	class="relative flex h-full flex-col"
	role="presentation"
	ondragover={(e) => {
		if (e.dataTransfer?.types.includes('Files')) {
			e.preventDefault();
			dragging = mayWork;
		}
	}}
	ondragleave={(e) => e.currentTarget === e.target && (dragging = false)}
	ondrop={drop}
>
	<div class="flex flex-wrap items-center gap-x-2.5 gap-y-1 px-5 py-2">
		<h1 class="flex flex-wrap items-center gap-x-1.5 text-[18px]">
			{#each data.way as step, i (step.id)}
				{#if i === 0 && step.code}<span
						class="mr-1 rounded-sm bg-frame px-1.5 font-mono text-[11px] leading-[18px] text-on-frame"
						>{step.code}</span
					>{/if}
				{#if i < data.way.length - 1}<a
						class="font-medium text-ink-2 hover:text-ink"
						href="/{code}/place/{step.id}">{step.name}</a
					><span class="text-ink-2">/</span>{:else}<span>{step.name}</span>{/if}
			{/each}
		</h1>
		<p class="text-ink-2">
			{plural(data.documents, 'document')} · {data.inHand} in hand · {mayWork
				? 'you can work here'
				: data.level === 'view'
					? 'you may only look here'
					: `you have ${data.levelLabel} here`}
		</p>
		{#if data.place.closed}<span class="tag bg-rule-2">closed</span>{/if}
		<!-- Their place is kept until they are known: buttons must not move away under a pointer. -->
		<div class="h-6 min-w-44">
			{#if reach}
				<a
					class="flex items-center gap-0.5"
					href="/{code}/access/{data.place.id}"
					title="{plural(reach.people, 'person reaches', 'people reach')} this; see Access"
					aria-label="{plural(reach.people, 'person reaches', 'people reach')} this {placeWord(
						data.place
					)}: Access"
				>
					{#each reach.head as p (p.id)}<Avatar name={p.name} outside={p.outside} />{/each}
					<span class="ml-1 text-[12px] text-ink-2">{plural(reach.people, 'person', 'people')}</span>
				</a>
			{/if}
		</div>
		<div class="ml-auto flex flex-wrap gap-1.5 max-md:ml-0">
			{#if selection.size}<SelectionMenu
					documents={selectedDocuments}
					folders={selectedFolders}
					mayManage={data.can.letIn.may}
					project={data.frame.project.id}
					{code}
					{mayWork}
					retentionDays={data.frame.project.retentionDays}
					tags={[...new Set(rows.filter((r) => selection.has(r.id)).flatMap((r) => r.tags))].sort()}
					changed={() => {
						selection.clear();
						return refresh('cupboard:folder');
					}}
					putInRelease={mayRelease ? () => (releasing = true) : null}
				/>{/if}
			<button class="button hidden sm:block" onclick={() => showPictures(!pictures)}
				>{pictures ? 'List' : 'Pictures'}</button
			>
			<a class="button" href="/{code}/access/{data.place.id}">Access</a>
			<FreezeButton
				bind:this={freezing}
				place={data.place}
				thaws={data.can.thawPlace.may}
				bare
				done={() => refresh('cupboard:folder')}
			/>
			{#if mayWork}
				<FolderMenu
					place={data.place}
					project={data.frame.project.id}
					parent={data.way.at(-2)?.id ?? null}
					{code}
					documents={data.documents}
					inHand={data.inHand}
					can={data.can}
					outsideLevel={data.frame.project.outsideLevel}
					retentionDays={data.frame.project.retentionDays}
					bookmark={keepFolder}
					freeze={() => freezing?.start()}
				/>
				<a class="button md:hidden" href="/{code}/photograph?place={data.place.id}">Photograph</a>
				<button class="button button-act" onclick={() => (adding = { files: [], empty: [] })}
					>Add documents</button
				>
			{/if}
		</div>
	</div>
	{#if data.place.onDesk}<p class="mx-5 mb-2 text-ink-2">
			Only you see what lies here, document controllers neither. When it is ready for others, move it to a
			shelf.
		</p>{/if}
	{#if data.freeze}<p class="mx-5 mb-2 border-l-4 border-wait bg-wait-soft px-3 py-1.5">
			Frozen by {data.freeze.by} since {dayText(data.freeze.at)}: {ended(data.freeze.reason)}
			{data.level === 'manage'
				? 'You have Manage and can still change things.'
				: 'Nobody below Manage changes anything here.'}
		</p>{/if}
	<div class="flex min-h-0 flex-1">
		<FolderTree
			tree={data.tree}
			current={data.place.id}
			{code}
			dropped={(documents, to) =>
				void attempt(() =>
					moveMany(data.frame.project.id, { documents, folders: [] }, to, () => {
						selection.clear();
						return refresh('cupboard:folder');
					})
				)}
		/>
		<DocumentList
			{rows}
			{folders}
			me={data.frame.me.id}
			{pictures}
			{code}
			reach={summaries}
			total={data.direct}
			all={() => documents.all()}
			{chosen}
			{selection}
			{choose}
			{open}
			place={data.place.id}
			empty={mayWork
				? 'No documents here yet. Drop files or a whole folder here, or use “Add documents”.'
				: 'No documents here yet.'}
		/>
	</div>
	{#if view}
		<TitleBlock
			bind:tab
			bind:actions
			{view}
			project={data.frame.project.id}
			{code}
			controller={mayRelease}
			outsideLevel={data.frame.project.outsideLevel}
			retentionDays={data.frame.project.retentionDays}
			{changed}
			putInRelease={() => (releasing = true)}
		/>
	{/if}
	{#if dragging}<div
			class="pointer-events-none absolute inset-2 z-30 grid place-items-center border-2 border-dashed border-act bg-act-soft/90 text-[16px] font-semibold"
		>
			Drop to add to {data.place.name}
		</div>{/if}
</div>
{#if adding}<AddDocuments
		first={adding}
		place={data.place}
		project={data.frame.project}
		close={() => (adding = null)}
	/>{/if}
{#if mayRelease}{#if releasing}{#await later( () => import('$lib/ui/releases/ReleaseDialog.svelte'), () => (releasing = false) ) then ReleaseDialog}<ReleaseDialog
				bind:open={releasing}
				project={data.frame.project.id}
				{code}
				me={data.frame.me.id}
				documents={forRelease}
			/>{/await}{/if}{/if}
