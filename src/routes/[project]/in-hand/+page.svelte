<script lang="ts">
	import { onMount } from 'svelte';
	import { DAY } from '$lib/core/time/spans';
	import LockTag from '$lib/ui/locks/LockTag.svelte';
	import { onTouched } from '$lib/ui/platform/live.svelte';
	import { refresh } from '$lib/ui/platform/refresh';
	import Revision from '$lib/ui/documents/Revision.svelte';
	import { agoText, dayText, plural, timeText } from '$lib/ui/platform/words';

	let { data } = $props();
	const code = $derived(data.frame.project.code.toLowerCase());
	let mine = $state(false);
	let stale = $state(false);
	const rows = $derived(data.rows.filter((r) => (!mine || r.lock?.mine) && (!stale || r.lock?.stale)));
	const people = $derived(new Set(data.rows.map((r) => r.lock?.holder)).size);
	const late = $derived(data.rows.filter((r) => r.lock?.stale).length);
	onMount(() => onTouched(['in-hand', 'documents', 'places', 'access'], () => refresh('cupboard:in-hand')));

	/** How long it has been in hand, in days once it is more than one. */
	function age(since: string): string {
		const days = Math.floor((Date.now() - new Date(since).getTime()) / DAY);
		return days >= 1 ? plural(days, 'day') : agoText(since);
	}
</script>

<svelte:head><title>In hand · {data.frame.project.name}</title></svelte:head>
<div class="flex h-full flex-col px-5 py-3">
	<div class="mb-2 flex flex-wrap items-center gap-x-4 gap-y-1">
		<h1 class="text-[21px]">In hand</h1>
		<p class="text-ink-2">
			{plural(data.rows.length, 'document')}, {plural(people, 'person', 'people')}{late
				? `, ${late} past the end`
				: ''}
		</p>
		<span class="ml-auto flex gap-4">
			<label class="flex items-center gap-1.5"
				><input type="checkbox" class="accent-act" bind:checked={mine} />only mine</label
			>
			<label class="flex items-center gap-1.5"
				><input type="checkbox" class="accent-act" bind:checked={stale} />only stale</label
			>
		</span>
	</div>
	<div class="min-h-0 flex-1 overflow-auto">
		<table class="w-full bg-sheet [&_td]:px-2 [&_th]:px-2">
			<thead class="sticky top-0 z-10 bg-film text-[12px]"
				><tr class="border-b border-ink"
					><th class="py-1.5">Who</th><th>For how long</th><th>Number</th><th class="max-md:hidden">Title</th
					><th>Revision</th><th class="max-md:hidden">What for</th><th>Back by</th><th class="max-md:hidden"
						>Asked for</th
					></tr
				></thead
			>
			<tbody>
				{#each rows as row (row.id)}
					<tr class="h-8 border-b border-rule-2">
						<td><LockTag lock={row.lock!} compact /></td>
						<td class="font-mono text-[12px]">{age(row.lock!.since)}</td>
						<td class="font-mono text-[12px] whitespace-nowrap"
							><a class="link" href="/{code}/document/{row.id}">{row.number}</a></td
						>
						<td class="font-semibold max-md:hidden">{row.title}</td>
						<td><Revision label={row.label} issued={row.issued} /></td>
						<td class="text-ink-2 max-md:hidden">{row.lock!.purpose}</td>
						<td class="whitespace-nowrap {row.lock!.stale ? 'font-semibold text-fault' : ''}"
							>{row.lock!.expectedEnd
								? `${dayText(row.lock!.expectedEnd)} ${timeText(row.lock!.expectedEnd)}`
								: 'not said'}{row.lock!.stale ? ', stale' : ''}</td
						>
						<td class="max-md:hidden">{row.wanted ? plural(row.wanted, 'person', 'people') : ''}</td>
					</tr>
				{:else}<tr
						><td colspan="8" class="p-6 text-ink-2"
							>{data.rows.length ? 'Nothing fits the filter.' : 'Nobody has anything in hand.'}</td
						></tr
					>{/each}
			</tbody>
		</table>
	</div>
</div>
