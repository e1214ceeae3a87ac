<script lang="ts">
	import { refresh } from '$lib/ui/platform/refresh';
	import { onMount } from 'svelte';
	import { onTouched } from '$lib/ui/platform/live.svelte';
	import { restorePlace } from '$lib/ui/places/restore';
	import { dayText, plural, whenText } from '$lib/ui/platform/words';

	let { data } = $props();
	const again = () => refresh('cupboard:removed');
	const acts = $derived([...new Map(data.rows.map((row) => [row.removal, row])).values()].length);
	onMount(() => onTouched(['places', 'documents', 'access'], again));
</script>

<svelte:head><title>Removed · {data.frame.project.name}</title></svelte:head>
<div class="flex h-full flex-col">
	<div class="flex items-center gap-3 px-5 py-3">
		<h1 class="text-[21px]">Removed</h1>
		<p class="text-ink-2">
			{data.rows.length ? `${plural(data.rows.length, 'item')} in ${plural(acts, 'removal')} · ` : ''}kept for {data
				.frame.project.retentionDays} days, with versions, tags and access
		</p>
	</div>
	<div class="mx-5 mb-4 min-h-0 flex-1 overflow-auto border-t border-ink bg-sheet">
		{#if data.rows.length}
			<table class="w-full">
				<thead class="sticky top-0 bg-film text-[12px]"
					><tr class="border-b border-ink"
						><th class="py-1.5 pl-3">What</th><th>Removed by</th><th>When</th><th>Why</th><th>Until</th><th
							><span class="sr-only">Do</span></th
						></tr
					></thead
				>
				<tbody>
					{#each data.rows as row (row.id)}
						<tr class="h-8 border-b border-rule-2">
							<td class="pl-3 {row.root ? 'font-semibold' : 'pl-8'}"
								>{#if row.number}<span class="mr-2 font-mono font-normal">{row.number}</span
									>{/if}{row.name}{#if row.kind !== 'document'}<span class="ml-2 font-normal text-ink-2"
										>{row.kind}{row.root ? ` with ${plural(row.documents, 'document')}` : ''}</span
									>{/if}</td
							>
							<td class="whitespace-nowrap">{row.by}</td>
							<td class="whitespace-nowrap text-ink-2">{whenText(row.at)}</td>
							<td class="max-w-[320px] truncate" title={row.reason}>{row.reason}</td>
							<td class="whitespace-nowrap text-ink-2">{dayText(row.until)}</td>
							<td class="pr-3 text-right whitespace-nowrap"
								>{#if row.mayRestore}<button class="link" onclick={() => restorePlace(row.id, again)}
										>{row.root ? 'Restore' : 'Restore only this'}</button
									>{:else}<span class="text-[12px] text-ink-2">needs Organise</span>{/if}</td
							>
						</tr>
					{/each}
				</tbody>
			</table>
		{:else}<p class="p-8 text-center text-ink-2">
				Nothing is removed. What is removed stays here for {data.frame.project.retentionDays} days.
			</p>{/if}
	</div>
</div>
