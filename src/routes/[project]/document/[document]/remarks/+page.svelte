<script lang="ts">
	import { onMount } from 'svelte';
	import { SvelteMap } from 'svelte/reactivity';
	import { toast } from '$lib/ui/kit/toast';
	import { isOverdue, plainRemark } from '$lib/core/remarks/remarks';
	import { addressOf, cupboard } from '$lib/client/cupboard';
	import { attempt } from '$lib/ui/platform/api';
	import { onTouched } from '$lib/ui/platform/live.svelte';
	import { refresh } from '$lib/ui/platform/refresh';
	import Revision from '$lib/ui/documents/Revision.svelte';
	import { dayText, plural, whenText } from '$lib/ui/platform/words';
	import { projectDay } from '$lib/ui/platform/project-day';

	/** All remarks of all departments on one document in one table, to be answered in one go. */
	let { data } = $props();
	const code = $derived(data.frame.project.code.toLowerCase());
	let all = $state(false);
	let busy = $state(false);
	/** What is to be said of each when it is settled. */
	const notes = new SvelteMap<number, string>();
	const open = $derived(data.remarks.filter((r) => !r.settled));
	const rows = $derived(
		(all ? data.remarks : open).toSorted((a, b) => a.from.localeCompare(b.from) || a.number - b.number)
	);
	const departments = $derived(
		[...new Set(rows.map((r) => r.from))].map((from) => ({ from, list: rows.filter((r) => r.from === from) }))
	);
	const today = projectDay();
	const chosen = $derived([...notes.keys()].filter((n) => open.some((r) => r.number === n)));

	function tick(number: number, on: boolean) {
		if (on) notes.set(number, notes.get(number) ?? '');
		else notes.delete(number);
	}
	async function settle() {
		busy = true;
		const lines = chosen.map((remark) => ({ remark, note: notes.get(remark) ?? '' }));
		const done = await attempt(() => cupboard.settleRemarks({ document: data.row.id, lines }));
		busy = false;
		if (!done) return;
		notes.clear();
		toast.success(`${plural(done.settled, 'remark')} settled; whoever made them is told.`);
		await refresh('cupboard:remarks');
	}
	onMount(() =>
		onTouched(
			['remarks'],
			() => refresh('cupboard:remarks'),
			(n) => n.document === data.row.id
		)
	);
</script>

<svelte:head><title>Remarks on {data.row.number}</title></svelte:head>
<div class="flex h-full flex-col px-5 py-3">
	<div class="mb-2 flex flex-wrap items-center gap-x-3 gap-y-1.5">
		<a class="link font-mono" href="/{code}/document/{data.row.id}">{data.row.number}</a>
		<h1 class="text-[18px]">Remarks on {data.row.title}</h1>
		<Revision label={data.row.label} issued={data.row.issued} />
		<p class="text-ink-2">{open.length} open of {data.remarks.length}</p>
		<label class="flex items-center gap-1.5"
			><input type="checkbox" class="accent-act" bind:checked={all} />settled too</label
		>
		<span class="ml-auto flex gap-1.5">
			<a class="button" download href={addressOf('commentSheet', { document: data.row.id, format: 'xlsx' })}
				>Comment sheet, XLSX</a
			>
			<a class="button" download href={addressOf('commentSheet', { document: data.row.id, format: 'pdf' })}
				>PDF</a
			>
			<button class="button button-act" disabled={busy || !chosen.length} onclick={settle}
				>Settle {chosen.length ? plural(chosen.length, 'remark') : 'remarks'}</button
			>
		</span>
	</div>
	<div class="min-h-0 flex-1 overflow-auto">
		<table class="w-full bg-sheet [&_td]:px-2 [&_td]:py-1.5 [&_td]:align-top [&_th]:px-2">
			<thead class="sticky top-0 z-10 bg-film text-[12px]"
				><tr class="border-b border-ink"
					><th class="w-8 py-1.5"><span class="sr-only">Settle</span></th><th class="w-12">No.</th><th>By</th
					><th>Remark and answers</th><th class="max-md:hidden">Who settles it</th><th class="w-[34%]"
						>How it is settled</th
					></tr
				></thead
			>
			<tbody>
				{#each departments as { from, list } (from)}
					<tr class="border-b border-rule bg-film"
						><td></td><td colspan="5" class="font-semibold">{from}, {plural(list.length, 'remark')}</td></tr
					>
					{#each list as row (row.id)}<tr class="border-b border-rule-2">
							<td
								>{#if row.can.settleRemark.may}<input
										type="checkbox"
										class="size-6 accent-act"
										aria-label="Settle remark {row.number}"
										checked={notes.has(row.number)}
										onchange={(event) => tick(row.number, event.currentTarget.checked)}
									/>{/if}</td
							>
							<td
								><a class="link min-w-6 font-mono" href="/{code}/document/{data.row.id}?remark={row.number}"
									>{row.number}</a
								></td
							>
							<td class="whitespace-nowrap"
								>{row.by}<span class="block text-[12px] text-ink-2">{whenText(row.at)} · {row.label}</span
								></td
							>
							<td
								>{#if row.quote}<span class="block text-[12px] text-ink-2">“{row.quote.slice(0, 160)}”</span
									>{/if}{plainRemark(row.text)}
								{#each row.answers as one, i (i)}<span class="block text-ink-2"
										><b class="font-semibold">{one.by}</b>: {plainRemark(one.text)}</span
									>{/each}</td
							>
							<td class="max-md:hidden {isOverdue(row, today) ? 'font-semibold text-fault' : ''}"
								>{row.assigned?.name ?? ''}{row.due ? `, by ${dayText(row.due)}` : ''}</td
							>
							<td
								>{#if row.settled}<span class="text-done"
										>settled by {row.settled.by}{row.settled.note ? `: ${row.settled.note}` : ''}</span
									>{:else if row.can.settleRemark.may}<textarea
										class="field !min-h-[34px]"
										rows="1"
										maxlength="2000"
										aria-label="How remark {row.number} is settled"
										value={notes.get(row.number) ?? ''}
										oninput={(event) => notes.set(row.number, event.currentTarget.value)}></textarea>{/if}</td
							>
						</tr>{/each}
				{:else}<tr><td colspan="6" class="!p-6 text-ink-2">No {all ? '' : 'open '}remarks.</td></tr>{/each}
			</tbody>
		</table>
	</div>
</div>
