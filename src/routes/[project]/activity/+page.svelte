<script lang="ts">
	import DateField from '$lib/ui/kit/DateField.svelte';
	import Select from '$lib/ui/kit/Select.svelte';
	import { goto } from '$app/navigation';
	import { Narrowing } from '$lib/ui/platform/narrowing.svelte';
	import { refresh } from '$lib/ui/platform/refresh';
	import { onMount, untrack } from 'svelte';
	import { cupboard } from '$lib/client/cupboard';
	import { attempt } from '$lib/ui/platform/api';
	import { EventPages } from '$lib/ui/trail/event-pages.svelte';
	import EventList from '$lib/ui/trail/EventList.svelte';
	import { AREAS } from '$lib/core/events/event';
	import { onTouched } from '$lib/ui/platform/live.svelte';
	import { restorePlace } from '$lib/ui/places/restore';
	import { EVENT_KINDS } from '$lib/ui/platform/words';

	let { data } = $props();
	let end: HTMLElement | undefined = $state();
	/** What tells one narrowing of the list from another. */
	const list = $derived(JSON.stringify([data.frame.project.id, data.filter]));
	const pages = new EventPages(
		(before) =>
			attempt(() => cupboard.activity({ project: data.frame.project.id, ...data.filter, before })).then(
				(answer) => answer?.events ?? null
			),
		untrack(() => ({ newest: data.events, list }))
	);
	$effect(() => {
		const [newest, now] = [data.events, list];
		untrack(() => pages.take(newest, now));
	});
	const filtered = $derived(Object.keys(data.filter).length > 0);

	onMount(() => onTouched(AREAS, () => refresh('cupboard:activity')));
	$effect(() => {
		if (!end) return;
		const watch = new IntersectionObserver((seen) => seen[0]?.isIntersecting && void pages.more(), {
			rootMargin: '600px'
		});
		watch.observe(end);
		return () => watch.disconnect();
	});

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
			events={pages.events}
			project={data.frame.project.code.toLowerCase()}
			restore={(id) =>
				restorePlace(id, () => {
					pages.restored(id);
					return refresh('cupboard:activity');
				})}
		/>
		{#if !pages.events.length}<p class="p-8 text-center text-ink-2">
				{filtered ? 'Nothing happened that fits this filter.' : 'Nothing has happened yet.'}
			</p>{/if}
		<div bind:this={end} class="h-8 text-center text-[12px] text-ink-2">
			{pages.events.length && pages.done ? 'That is the beginning.' : ''}
		</div>
	</div>
</div>
