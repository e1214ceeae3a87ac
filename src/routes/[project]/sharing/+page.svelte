<script lang="ts">
	import { onMount } from 'svelte';
	import { SvelteSet } from 'svelte/reactivity';
	import { toast } from 'svelte-sonner';
	import { cupboard } from '$lib/client/cupboard';
	import ConfirmDialog from '$lib/ui/kit/ConfirmDialog.svelte';
	import SharingTabs from '$lib/ui/access/SharingTabs.svelte';
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
	const cell = 'px-2 py-1.5';
</script>

<svelte:head><title>Sharing · {data.frame.project.name}</title></svelte:head>
<div class="flex h-full flex-col">
	<SharingTabs {base} />
	<div class="min-h-0 flex-1 space-y-6 overflow-auto px-5 py-3">
		<section>
			<h1 class="mb-1.5 text-[18px]">Shared with you</h1>
			<div class="overflow-x-auto">
				<table class="w-full min-w-[640px] bg-sheet">
					<thead class="text-[12px]"
						><tr class="border-y border-ink bg-film"
							><th class={cell}>Place</th><th class={cell}>You may</th><th class={cell}>Through</th><th
								class={cell}>By</th
							><th class={cell}>Since</th><th class={cell}>Until</th><th class={cell}
								>Changed since you looked</th
							></tr
						></thead
					>
					<tbody>
						{#each data.toMe as row (row.id)}
							<tr class="border-b border-rule-2">
								<td class={cell}
									><a class="link font-semibold" href={wayTo(row)}
										>{row.number ? `${row.number} ` : ''}{row.placeName}</a
									></td
								>
								<td class="{cell} font-semibold">{row.level}</td>
								<td class="{cell} text-ink-2">{row.kind === 'person' ? 'yourself' : row.who}</td>
								<td class={cell}>{row.by ?? 'the shelf'}</td>
								<td class="{cell} text-ink-2">{dayText(row.at)}</td>
								<td class="{cell} text-ink-2">{row.endsAt ? dayText(row.endsAt) : ''}</td>
								<td class={cell}
									>{#if row.changed}<span class="tag bg-new-soft text-new"
											>{plural(row.changed, 'document')}</span
										>{/if}</td
								>
							</tr>
						{:else}<tr
								><td colspan="7" class="p-4 text-ink-2"
									>Nothing beyond what your departments have on their own shelves.</td
								></tr
							>{/each}
					</tbody>
				</table>
			</div>
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
			<div class="overflow-x-auto">
				<table class="w-full min-w-[640px] bg-sheet">
					<thead class="text-[12px]"
						><tr class="border-y border-ink bg-film"
							><th class="{cell} w-8"><span class="sr-only">Tick</span></th><th class={cell}>Who</th><th
								class={cell}>May</th
							><th class={cell}>Place</th><th class={cell}>Since</th><th class={cell}>Until</th><th
								class={cell}><span class="sr-only">Do</span></th
							></tr
						></thead
					>
					<tbody>
						{#each data.byMe as row (row.id)}
							<tr class="border-b border-rule-2">
								<td class={cell}
									><input
										type="checkbox"
										class="accent-act"
										aria-label="Tick {row.who} on {row.placeName}"
										checked={selection.has(row.id)}
										onchange={() => selection.delete(row.id) || selection.add(row.id)}
									/></td
								>
								<td class="{cell} font-semibold">{row.who}</td>
								<td class="{cell} font-semibold {row.level === 'Barred' ? 'text-fault' : ''}">{row.level}</td>
								<td class={cell}
									><a class="link" href="{base}/access/{row.place}"
										>{row.number ? `${row.number} ` : ''}{row.placeName}</a
									></td
								>
								<td class="{cell} text-ink-2">{dayText(row.at)}</td>
								<td class="{cell} text-ink-2">{row.endsAt ? dayText(row.endsAt) : ''}</td>
								<td class="{cell} text-right"><button class="link" onclick={() => end([row])}>End</button></td
								>
							</tr>
						{:else}<tr><td colspan="7" class="p-4 text-ink-2">You have given nothing to anybody.</td></tr
							>{/each}
					</tbody>
				</table>
			</div>
		</section>
	</div>
</div>
{#if asking}<ConfirmDialog bind:asking done={again} />{/if}
