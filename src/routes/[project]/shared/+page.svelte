<script lang="ts">
	import { onMount } from 'svelte';
	import { SvelteSet } from 'svelte/reactivity';
	import { toast } from '$lib/ui/kit/toast';
	import { cupboard } from '$lib/client/cupboard';
	import ConfirmDialog from '$lib/ui/kit/ConfirmDialog.svelte';
	import Table from '$lib/ui/kit/Table.svelte';
	import { onTouched } from '$lib/ui/platform/live.svelte';
	import { refresh } from '$lib/ui/platform/refresh';
	import { dayText, plural } from '$lib/ui/platform/words';

	/** What the reader shared with others, each to end. */
	let { data } = $props();
	const base = $derived(`/${data.frame.project.code.toLowerCase()}`);
	const selection = new SvelteSet<string>();
	let asking = $state<{ title: string; text: string; button: string; act: () => Promise<unknown> } | null>(
		null
	);
	const again = () => refresh('cupboard:sharing');
	onMount(() => onTouched(['access', 'people', 'places'], again));

	type Row = (typeof data.byMe)[number];
	function end(rows: Row[]) {
		const ids = rows.map((r) => r.id);
		asking = {
			title: `End ${plural(ids.length, 'grant')}?`,
			text: `${rows
				.slice(0, 4)
				.map((r) => `${r.who} on ${r.placeName}`)
				.join(
					'; '
				)}${rows.length > 4 ? `; and ${rows.length - 4} more` : ''}. What was brought in under them ends too. Copies already downloaded stay where they are.`,
			button: 'End them',
			act: async () => {
				await cupboard.endSharing({ project: data.frame.project.id, grants: ids });
				selection.clear();
				toast(`${plural(ids.length, 'grant')} ended.`);
			}
		};
	}
	const placeName = (row: { number: string | null; placeName: string }) =>
		`${row.number ? `${row.number} ` : ''}${row.placeName}`;
	const since = (row: { at: Date | string }) => new Date(row.at).getTime();
	const until = (row: { endsAt: Date | string | null }) => (row.endsAt ? dayText(row.endsAt) : '');
	const ends = (row: { endsAt: Date | string | null }) =>
		row.endsAt ? new Date(row.endsAt).getTime() : Number.MAX_SAFE_INTEGER;
</script>

<svelte:head><title>Shared by me · {data.frame.project.name}</title></svelte:head>
<div class="h-full overflow-auto px-5 py-3">
	<div class="mb-2 flex flex-wrap items-center gap-x-4">
		<h1 class="text-[21px]">Shared by me</h1>
		<p class="text-ink-2">whom you let in, and how far; passes for people without an account are beside</p>
		{#if selection.size}<button
				class="button"
				onclick={() => end(data.byMe.filter((r) => selection.has(r.id)))}
				>End {plural(selection.size, 'grant')}…</button
			>{/if}
	</div>
	<Table
		label="Shared by me"
		rows={data.byMe}
		key={(row) => row.id}
		empty="You let nobody in yet. It is done at a shelf, folder or document, under Access; whom you let in stands here, to be ended."
		{selection}
		tickName={(row) => `Tick ${row.who} on ${row.placeName}`}
		lines
		columns={[
			{ id: 'who', head: 'Who', text: (row) => row.who, by: (row) => row.who, class: 'font-semibold' },
			{ id: 'level', head: 'May', cell: level, by: (row) => row.level },
			{ id: 'place', head: 'Place', cell: accessOf, by: placeName },
			{ id: 'since', head: 'Since', text: (row) => dayText(row.at), by: since, class: 'text-ink-2' },
			{ id: 'until', head: 'Until', text: until, by: ends, class: 'text-ink-2' },
			{ id: 'do', head: 'Do', quiet: true, cell: ending, right: true }
		]}
	/>
</div>
{#if asking}<ConfirmDialog bind:asking done={again} />{/if}

{#snippet level(row: Row)}<span class="font-semibold {row.level === 'Barred' ? 'text-fault' : ''}"
		>{row.level}</span
	>{/snippet}
{#snippet accessOf(row: Row)}<a class="link" href="{base}/access/{row.place}">{placeName(row)}</a>{/snippet}
{#snippet ending(row: Row)}<button class="link" onclick={() => end([row])}>End</button>{/snippet}
