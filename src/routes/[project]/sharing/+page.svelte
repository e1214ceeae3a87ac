<script lang="ts">
	import { onMount } from 'svelte';
	import { SvelteSet } from 'svelte/reactivity';
	import { toast } from '$lib/ui/kit/toast';
	import { cupboard } from '$lib/client/cupboard';
	import ConfirmDialog from '$lib/ui/kit/ConfirmDialog.svelte';
	import SharingTabs from '$lib/ui/access/SharingTabs.svelte';
	import Table from '$lib/ui/kit/Table.svelte';
	import { onTouched } from '$lib/ui/platform/live.svelte';
	import { refresh } from '$lib/ui/platform/refresh';
	import { dayText, plural } from '$lib/ui/platform/words';

	let { data } = $props();
	const base = $derived(`/${data.frame.project.code.toLowerCase()}`);
	const selection = new SvelteSet<string>();
	let asking = $state<{ title: string; text: string; button: string; act: () => Promise<unknown> } | null>(
		null
	);
	const again = () => refresh('cupboard:sharing');
	onMount(() => onTouched(['access', 'people', 'places'], again));

	type Row = (typeof data.byMe)[number];
	const wayTo = (row: Row) =>
		row.placeKind === 'document' ? `${base}/document/${row.place}` : `${base}/place/${row.place}`;
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

<svelte:head><title>Sharing · {data.frame.project.name}</title></svelte:head>
<div class="flex h-full flex-col">
	<SharingTabs {base} />
	<div class="min-h-0 flex-1 space-y-6 overflow-auto px-5 py-3">
		<section>
			<h1 class="mb-1.5 text-[18px]">Shared with you</h1>
			<Table
				label="Shared with you"
				rows={data.toMe}
				key={(row) => row.id}
				empty="Nothing beyond what your departments have on their own shelves."
				lines
				columns={[
					{ id: 'place', head: 'Place', cell: placeTo, by: placeName },
					{
						id: 'level',
						head: 'You may',
						text: (row) => row.level,
						by: (row) => row.level,
						class: 'font-semibold'
					},
					{
						id: 'through',
						head: 'Through',
						text: (row) => (row.kind === 'person' ? 'yourself' : row.who),
						class: 'text-ink-2'
					},
					{ id: 'by', head: 'By', text: (row) => row.by ?? 'the shelf' },
					{ id: 'since', head: 'Since', text: (row) => dayText(row.at), by: since, class: 'text-ink-2' },
					{ id: 'until', head: 'Until', text: until, by: ends, class: 'text-ink-2' },
					{ id: 'changed', head: 'Changed since you looked', cell: changed, by: (row) => row.changed }
				]}
			/>
		</section>
		<section>
			<div class="mb-1.5 flex items-center gap-3">
				<h2 class="text-[18px]">Shared by you</h2>
				{#if selection.size}<button
						class="button"
						onclick={() => end(data.byMe.filter((r) => selection.has(r.id)))}
						>End {plural(selection.size, 'grant')}…</button
					>{/if}
			</div>
			<Table
				label="Shared by you"
				rows={data.byMe}
				key={(row) => row.id}
				empty="You have given nothing to anybody."
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
		</section>
	</div>
</div>
{#if asking}<ConfirmDialog bind:asking done={again} />{/if}

{#snippet placeTo(row: (typeof data.toMe)[number])}<a class="link font-semibold" href={wayTo(row)}
		>{placeName(row)}</a
	>{/snippet}
{#snippet changed(row: (typeof data.toMe)[number])}{#if row.changed}<span class="tag bg-new-soft text-new"
			>{plural(row.changed, 'document')}</span
		>{/if}{/snippet}
{#snippet level(row: Row)}<span class="font-semibold {row.level === 'Barred' ? 'text-fault' : ''}"
		>{row.level}</span
	>{/snippet}
{#snippet accessOf(row: Row)}<a class="link" href="{base}/access/{row.place}">{placeName(row)}</a>{/snippet}
{#snippet ending(row: Row)}<button class="link" onclick={() => end([row])}>End</button>{/snippet}
