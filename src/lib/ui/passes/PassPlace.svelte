<script lang="ts">
	import type { PassPlaceView } from '../../core/documents/rows';
	import Revision from '../documents/Revision.svelte';
	import { NUMBER_COLUMN } from '../kit/table';
	import Table from '../kit/Table.svelte';
	import { kindWord } from '../../core/files/kinds';
	import { dayText, plural, sizeText } from '../platform/words';

	/** A folder or document as the holder of a pass sees it. */
	let { view, secret }: { view: PassPlaceView; secret: string } = $props();
	type Item = PassPlaceView['documents'][number];
	const base = $derived(`/pass/${secret}`);
	const here = $derived(view.way.at(-1)!);
	const inside = $derived(view.way.length > 1 ? `?folder=${here.id}` : '');
	const size = $derived(view.documents.reduce((n, d) => n + d.size, 0));
</script>

<svelte:head
	><title>{here.name}, {view.project.name}</title><meta name="robots" content="noindex" /></svelte:head
>
<div class="min-h-screen bg-sheet pb-16">
	<header class="bg-frame text-on-frame">
		<div class="mx-auto flex h-12 max-w-[1080px] items-center gap-4 px-5">
			<b class="text-[15px] [font-stretch:110%]">Cupboard</b>
			<span class="truncate text-[#c4d3cc]">{view.project.name}, for {view.project.client}</span>
			<span class="ml-auto hidden text-[#c4d3cc] sm:inline"
				>open until {dayText(view.endsAt)} · for {view.holder}</span
			>
		</div>
	</header>
	<main class="mx-auto max-w-[1080px] px-5 pt-5">
		{#if view.newer}<p role="alert" class="mb-4 border-l-4 border-fault bg-fault-soft px-3 py-2 text-fault">
				<b>There is a newer version, {view.newer.label} of {dayText(view.newer.at)}.</b> This pass shows exactly
				the one below; ask the sender before you build from it.
			</p>{/if}
		<h1 class="mb-1 flex flex-wrap items-center gap-x-1.5 text-[22px]">
			{#each view.way as step, i (step.id)}
				{#if i < view.way.length - 1}<a
						class="font-medium text-ink-2 hover:text-ink"
						href={i === 0 ? base : `${base}?folder=${step.id}`}>{step.name}</a
					><span class="text-ink-2">/</span>{:else}<span>{step.name}</span>{/if}
			{/each}
		</h1>
		<p class="mb-4 text-ink-2">
			{plural(view.documents.length, 'document')}, {sizeText(size)} · {view.mayDownload
				? view.stamped
					? 'you may view and download; copies carry a stamp with your name'
					: 'you may view and download'
				: 'you may look; there is nothing to download'}
		</p>
		{#if view.folders.length}<ul class="mb-4 flex flex-wrap gap-1.5">
				{#each view.folders as folder (folder.id)}<li>
						<a class="button" href="{base}?folder={folder.id}">{folder.name}</a>
					</li>{/each}
			</ul>{/if}
		<Table
			label="Documents"
			rows={view.documents}
			key={(item) => item.id}
			empty="No documents here."
			lines
			columns={[
				NUMBER_COLUMN,
				{
					id: 'title',
					head: 'Title',
					text: (item) => item.title,
					by: (item) => item.title,
					class: 'font-semibold'
				},
				{ id: 'revision', head: 'Revision', cell: revision, by: (item) => item.label },
				{
					id: 'of',
					head: 'Of',
					text: (item) => dayText(item.changedAt),
					by: (item) => String(item.changedAt),
					class: 'whitespace-nowrap text-ink-2'
				},
				{
					id: 'kind',
					head: 'Kind',
					text: (item) => `${kindWord(item.mediaType, '')}, ${sizeText(item.size)}`,
					by: (item) => kindWord(item.mediaType, ''),
					class: 'whitespace-nowrap text-ink-2'
				},
				{ id: 'do', head: 'Do', quiet: true, cell: acts, class: 'whitespace-nowrap', right: true }
			]}
		/>
	</main>
</div>

{#snippet revision(item: Item)}<Revision label={item.label} issued={item.issued} />{/snippet}
{#snippet acts(item: Item)}<a class="link" href="{base}/view/{item.id}{inside}">View</a>
	{#if item.takeable}<a class="link ml-2" href="{base}/file/{item.id}?download" download>Download</a
		>{/if}{/snippet}
