<script lang="ts">
	import DateField from '$lib/ui/kit/DateField.svelte';
	import Select from '$lib/ui/kit/Select.svelte';
	import { goto } from '$app/navigation';
	import { Narrowing } from '$lib/ui/platform/narrowing.svelte';
	import { refresh } from '$lib/ui/platform/refresh';
	import { onMount, untrack } from 'svelte';
	import type { EventRow } from '$lib/core/documents/rows';
	import { cupboard } from '$lib/client/cupboard';
	import { attempt } from '$lib/ui/platform/api';
	import EventList from '$lib/ui/trail/EventList.svelte';
	import { AREAS } from '$lib/core/events/event';
	import { onTouched } from '$lib/ui/platform/live.svelte';
	import { restorePlace } from '$lib/ui/places/restore';
	import { EVENT_KINDS } from '$lib/ui/platform/words';

	let { data } = $props();
	let older = $state<EventRow[]>([]);
	let done = $state(false);
	let loading = false;
	let end: HTMLElement | undefined = $state();
	const events = $derived([
		...data.events,
		...older.filter((o) => o.seq < (data.events.at(-1)?.seq ?? Infinity))
	]);
	const filtered = $derived(Object.keys(data.filter).length > 0);

	// Another filter begins again at the newest.
	$effect(() => {
		void data.filter;
		untrack(() => {
			older = [];
			done = data.events.length < 80;
		});
	});
	onMount(() => onTouched(AREAS, () => refresh('cupboard:activity')));
	$effect(() => {
		if (!end) return;
		const watch = new IntersectionObserver((seen) => seen[0]?.isIntersecting && void more(), {
			rootMargin: '600px'
		});
		watch.observe(end);
		return () => watch.disconnect();
	});

	async function more() {
		const last = events.at(-1);
		if (loading || done || !last) return;
		loading = true;
		const asked = { project: data.frame.project.id, ...data.filter, before: last.seq };
		const answer = await attempt(() => cupboard.activity(asked));
		if (answer) {
			older = [...older, ...answer.events];
			done = answer.events.length < 80;
		}
		loading = false;
	}
	/** Filters by one thing more, or no longer when it is empty. */
	const narrowed = new Narrowing<Record<string, unknown>>(
		() => data.filter,
		(to) => {
			const query = new URLSearchParams(
				Object.entries(to).flatMap(([key, said]) => (said ? [[key, String(said)]] : []))
			);
			return goto(`?${query}`, { keepFocus: true, noScroll: true, replaceState: true });
		}
	);
	const choose = (by: string, value: string) => narrowed.change({ [by]: value });
</script>

<svelte:head><title>Activity · {data.frame.project.name}</title></svelte:head>
<div class="flex h-full flex-col">
	<div class="flex flex-wrap items-center gap-3 px-5 py-3">
		<h1 class="text-[21px]">Activity</h1>
		<form class="ml-auto flex flex-wrap gap-2" aria-label="Filter">
			<Select
				class="w-[150px]"
				label="Person"
				choices={[
					{ value: '', label: 'Everybody' },
					...data.persons.map((p: { id: string; name: string }) => ({ value: p.id, label: p.name }))
				]}
				value={data.filter.actor ?? ''}
				choose={(actor) => choose('actor', actor)}
			/>
			<Select
				class="w-[170px]"
				label="Kind"
				choices={[
					{ value: '', label: 'Every change' },
					...Object.entries(EVENT_KINDS).map(([value, label]) => ({ value, label }))
				]}
				value={data.filter.kind ?? ''}
				choose={(kind) => choose('kind', kind)}
			/>
			<Select
				class="w-[180px]"
				label="Place"
				choices={[
					{ value: '', label: 'Everywhere' },
					...data.places.map((p: { id: string; name: string }) => ({ value: p.id, label: p.name }))
				]}
				value={data.filter.place ?? ''}
				choose={(place) => choose('place', place)}
			/>
			<span class="flex items-center gap-1 text-ink-2"
				>from <DateField
					inline
					label="From"
					class="w-[130px]"
					value={data.filter.from ?? ''}
					choose={(day) => choose('from', day)}
				/></span
			>
			<span class="flex items-center gap-1 text-ink-2"
				>to <DateField
					inline
					label="To"
					class="w-[130px]"
					value={data.filter.to ?? ''}
					choose={(day) => choose('to', day)}
				/></span
			>
			{#if filtered}<a class="button" href="?">Show all</a>{/if}
		</form>
	</div>
	<div class="mx-5 mb-4 min-h-0 flex-1 overflow-auto border-t border-ink bg-sheet">
		<EventList
			{events}
			project={data.frame.project.code.toLowerCase()}
			restore={(id) => restorePlace(id, () => refresh('cupboard:activity'))}
		/>
		{#if !events.length}<p class="p-8 text-center text-ink-2">
				{filtered ? 'Nothing happened that fits this filter.' : 'Nothing has happened yet.'}
			</p>{/if}
		<div bind:this={end} class="h-8 text-center text-[12px] text-ink-2">
			{events.length && done ? 'That is the beginning.' : ''}
		</div>
	</div>
</div>
