<script lang="ts">
	import { onMount } from 'svelte';
	import { SvelteMap, SvelteSet } from 'svelte/reactivity';
	import { toast } from '$lib/ui/kit/toast';
	import { isOverdue, plainRemark } from '$lib/core/remarks/remarks';
	import { addressOf, cupboard } from '$lib/client/cupboard';
	import { attempt } from '$lib/ui/platform/api';
	import { onTouched } from '$lib/ui/platform/live.svelte';
	import { refresh } from '$lib/ui/platform/refresh';
	import Table from '$lib/ui/kit/Table.svelte';
	import Revision from '$lib/ui/documents/Revision.svelte';
	import { dayText, plural, whenText } from '$lib/ui/platform/words';
	import { projectDay } from '$lib/ui/platform/project-day';

	/** All remarks of all departments on one document in one table, to be answered in one go. */
	let { data } = $props();
	type Row = (typeof data.remarks)[number];
	const code = $derived(data.frame.project.code.toLowerCase());
	let all = $state(false);
	let busy = $state(false);
	/** What is to be said of each when it is settled. */
	const notes = new SvelteMap<number, string>();
	const open = $derived(data.remarks.filter((r) => !r.settled));
	const rows = $derived(
		(all ? data.remarks : open).toSorted((a, b) => a.from.localeCompare(b.from) || a.number - b.number)
	);
	const today = projectDay();
	/** Which of them are settled now. */
	const ticked = new SvelteSet<string>();
	const chosen = $derived(open.filter((r) => ticked.has(r.id)));

	async function settle() {
		busy = true;
		const lines = chosen.map(({ number }) => ({ remark: number, note: notes.get(number) ?? '' }));
		const done = await attempt(() => cupboard.settleRemarks({ document: data.row.id, lines }));
		busy = false;
		if (!done) return;
		notes.clear();
		ticked.clear();
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
	<div class="min-h-0 flex-1">
		<Table
			label="Remarks"
			{rows}
			key={(row) => row.id}
			group={(row) => row.from}
			empty="No {all
				? ''
				: 'open '}remarks. They are made on the document’s page, at the place they are about."
			fills
			lines
			selection={ticked}
			tickName={(row) => (row.can.settleRemark.may ? `Settle remark ${row.number}` : null)}
			columns={[
				{ id: 'number', head: 'No.', cell: number, by: (row) => row.number },
				{ id: 'by', head: 'By', cell: by, by: (row) => row.by, class: 'whitespace-nowrap' },
				{ id: 'text', head: 'Remark and answers', cell: text, class: 'max-sm:w-full' },
				{
					id: 'settles',
					head: 'Who settles it',
					cell: settles,
					by: (row) => row.assigned?.name ?? ''
				},
				{ id: 'how', head: 'How it is settled', cell: how, class: 'w-full sm:w-[34%]' }
			]}
		/>
	</div>
</div>

{#snippet number(row: Row)}<a
		class="link min-w-6 font-mono"
		href="/{code}/document/{data.row.id}?remark={row.number}">{row.number}</a
	>{/snippet}
{#snippet by(row: Row)}{row.by}<span class="block text-[12px] text-ink-2"
		>{whenText(row.at)} · {row.label}</span
	>{/snippet}
{#snippet text(row: Row)}{#if row.quote}<span class="block text-[12px] text-ink-2"
			>“{row.quote.slice(0, 160)}”</span
		>{/if}{plainRemark(row.text)}
	{#each row.answers as one, i (i)}<span class="block text-ink-2"
			><b class="font-semibold">{one.by}</b>: {plainRemark(one.text)}</span
		>{/each}{/snippet}
{#snippet settles(row: Row)}<span class={isOverdue(row, today) ? 'font-semibold text-fault' : ''}
		>{row.assigned?.name ?? ''}{row.due ? `, by ${dayText(row.due)}` : ''}</span
	>{/snippet}
{#snippet how(row: Row)}{#if row.settled}<span class="text-done"
			>settled by {row.settled.by}{row.settled.note ? `: ${row.settled.note}` : ''}</span
		>{:else if row.can.settleRemark.may}<textarea
			class="field !min-h-[34px]"
			rows="1"
			maxlength="2000"
			aria-label="How remark {row.number} is settled"
			placeholder="How it is settled"
			value={notes.get(row.number) ?? ''}
			oninput={(event) => {
				notes.set(row.number, event.currentTarget.value);
				ticked.add(row.id);
			}}></textarea>{/if}{/snippet}
