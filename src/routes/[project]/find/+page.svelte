<script lang="ts">
	import { goto } from '$app/navigation';
	import { SvelteSet } from 'svelte/reactivity';
	import { subjectsAbout } from '$lib/core/help/subjects';
	import { NUMBER_COLUMN } from '$lib/ui/kit/table';
	import Table from '$lib/ui/kit/Table.svelte';
	import { later } from '$lib/ui/kit/later';
	import LockTag from '$lib/ui/locks/LockTag.svelte';
	import { useShortcuts } from '$lib/ui/platform/shortcuts.svelte';
	import Revision from '$lib/ui/documents/Revision.svelte';
	import { agoText, firstName, plural } from '$lib/ui/platform/words';

	let { data } = $props();
	type Row = NonNullable<typeof data.found>['rows'][number];
	const code = $derived(data.frame.project.code.toLowerCase());
	const { controller } = $derived(data.frame.me);
	/** What is ticked stays so while other words are looked for, so that a release is built from several. */
	const ticked = new SvelteSet<string>();
	let releasing = $state(false);
	const rows = $derived(data.found?.rows ?? []);
	/** Subjects of the pages that say how everything works, which speak of what is looked for. */
	const subjects = $derived(data.q ? subjectsAbout(data.q).slice(0, 3) : []);
	$effect(() =>
		useShortcuts([
			{ key: 'r', says: 'Put in release', run: () => controller && ticked.size && (releasing = true) }
		])
	);
	const summary = $derived(
		!data.found
			? 'Type at least two characters of a number, a title, or what is written in a document.'
			: data.found.more
				? `${rows.length} of more that fit, the best first; type more to narrow it`
				: plural(rows.length, 'document')
	);
</script>

<svelte:head><title>Find {data.q} · {data.frame.project.name}</title></svelte:head>
<div class="h-full overflow-auto px-5 py-3">
	<div class="mb-3 flex flex-wrap items-center gap-3">
		<h1 class="text-[21px]">Find</h1>
		<form class="flex min-w-0 flex-1 gap-2 sm:flex-none" role="search">
			<!-- Whoever comes here without words means to type some. -->
			<!-- svelte-ignore a11y_autofocus -->
			<input
				class="field min-w-0 flex-1 sm:w-[240px] sm:flex-none"
				autofocus={!data.q}
				type="search"
				name="q"
				aria-label="Number, title or words inside"
				value={data.q}
				minlength="2"
			/><button class="button">Find</button>
		</form>
		<p class="text-ink-2">
			{summary}
		</p>
		{#if ticked.size}<span class="ml-auto flex items-center gap-2"
				><span class="text-ink-2">{ticked.size} ticked</span>
				<button class="button" onclick={() => ticked.clear()}>Untick</button>
				<button class="button button-act" onclick={() => (releasing = true)}>Put in release…</button></span
			>{/if}
	</div>
	{#if data.found?.close}<p class="mb-3 border-l-2 border-wait bg-wait-soft px-3 py-1.5">
			Nothing has “{data.q}” as typed. These come closest.
		</p>{/if}
	{#if subjects.length}<p class="mb-3 flex flex-wrap gap-x-3 text-ink-2">
			How Cupboard works: {#each subjects as one (one.id)}<a class="link" href="/{code}/help/{one.id}"
					>{one.title}</a
				>{/each}
		</p>{/if}
	{#if data.found}<Table
			label="What was found"
			{rows}
			key={(row) => row.id}
			selection={controller ? ticked : undefined}
			tickName={(row) => row.number}
			empty="No document that you may look at has “{data.q}” in its number, its title, its tags or its text."
			open={(row) => void goto(`/${code}/document/${row.id}`)}
			columns={[
				{ ...NUMBER_COLUMN, from: 'sm' },
				{ id: 'title', head: 'Title', cell: title, by: (row) => row.title },
				{ id: 'revision', head: 'Revision', cell: revision, by: (row) => row.label },
				{ id: 'hand', head: 'In hand', cell: hand, from: 'sm' },
				{
					id: 'changed',
					head: 'Last change',
					text: (row) => `${firstName(row.changedBy)} · ${agoText(row.changedAt)}`,
					by: (row) => String(row.changedAt),
					class: 'whitespace-nowrap text-ink-2',
					from: 'sm'
				},
				{ id: 'do', head: 'Do', quiet: true, cell: folder, right: true }
			]}
		/>{/if}
</div>

{#if releasing}{#await later( () => import('$lib/ui/releases/ReleaseDialog.svelte'), () => (releasing = false) ) then ReleaseDialog}<ReleaseDialog
			bind:open={releasing}
			project={data.frame.project.id}
			{code}
			me={data.frame.me.id}
			documents={[...ticked]}
		/>{/await}{/if}

{#snippet title(row: Row)}<a class="font-semibold hover:text-act" href="/{code}/document/{row.id}"
		>{row.title}</a
	><span class="block font-mono text-[11px] text-ink-2 sm:hidden">{row.number}</span
	>{#if data.found?.passages[row.id]}<span class="block py-0.5 text-[12px] text-ink-2"
			>{data.found.passages[row.id]}</span
		>{/if}{/snippet}
{#snippet revision(row: Row)}<Revision label={row.label} issued={row.issued} />{/snippet}
{#snippet hand(row: Row)}{#if row.lock}<LockTag lock={row.lock} />{/if}{/snippet}
{#snippet folder(row: Row)}<a class="link text-[12px]" href="/{code}/place/{row.folder}?document={row.id}"
		>Folder</a
	>{/snippet}
