<script lang="ts">
	import { onMount } from 'svelte';
	import { SvelteSet } from 'svelte/reactivity';
	import { toast } from '$lib/ui/kit/toast';
	import { addressOf, cupboard } from '$lib/client/cupboard';
	import Table from '$lib/ui/kit/Table.svelte';
	import { onTouched } from '$lib/ui/platform/live.svelte';
	import ReasonDialog from '$lib/ui/kit/ReasonDialog.svelte';
	import { refresh } from '$lib/ui/platform/refresh';
	import SortArrivals from '$lib/ui/hatches/SortArrivals.svelte';
	import { kindWord } from '$lib/core/files/kinds';
	import { eachOf, refusedText } from '$lib/ui/platform/each';
	import { plural, sizeText, whenText } from '$lib/ui/platform/words';

	let { data } = $props();
	const base = $derived(`/${data.frame.project.code.toLowerCase()}`);
	type Row = (typeof data.rows)[number];
	let sorting = $state.raw<Row[]>([]);
	let refusing = $state.raw<Row[]>([]);
	const selection = new SvelteSet<string>();
	const undecided = $derived(data.rows.filter((r) => r.state === 'waiting' || r.state === 'unsafe'));
	const chosen = $derived(undecided.filter((r) => selection.has(r.id)));
	const sortable = $derived(chosen.filter((r) => r.state === 'waiting'));
	const again = () => refresh('cupboard:arrivals');
	onMount(() => onTouched(['arrivals', 'places'], again));

	const STATE: Record<Row['state'], [string, string]> = {
		checking: ['being checked', 'bg-wait-soft text-wait'],
		waiting: ['waits for you', 'bg-lock-soft text-lock'],
		unsafe: ['unsafe', 'bg-fault-soft text-fault'],
		sorted: ['sorted', 'bg-done-soft text-done'],
		refused: ['refused', 'bg-rule-2']
	};
	async function refuse(reason: string) {
		let tellings = 0;
		const outcome = await eachOf(refusing, async (row) => {
			const { told } = await cupboard.refuseArrival({ place: row.place, arrival: row.id, reason });
			if (told) tellings++;
		});
		const [one] = refusing;
		if (outcome.done)
			toast(
				refusing.length === 1
					? `${one!.fileName} is refused${tellings ? `; ${one!.sender} has been told` : ''}.`
					: `${plural(outcome.done, 'file is', 'files are')} refused; ${tellings ? 'whoever left an address has been told' : 'nobody left an address'}.`
			);
		if (outcome.refused.length) toast.error(refusedText(outcome, 'refused'), { stays: true });
		selection.clear();
		await again();
	}
</script>

<svelte:head><title>Arrivals · {data.frame.project.name}</title></svelte:head>
<div class="flex h-full flex-col">
	<div class="min-h-0 flex-1 overflow-auto px-5 py-3">
		<div class="mb-1.5 flex flex-wrap items-center gap-2">
			<h1 class="mr-auto text-[21px]">
				Arrivals <span class="text-[13px] font-normal text-ink-2"
					>{data.waiting ? `${plural(data.waiting, 'file')} to sort` : 'nothing waits'}</span
				>
			</h1>
			{#if sortable.length}<button class="button button-act" onclick={() => (sorting = sortable)}
					>Sort in {plural(sortable.length, 'file')}…</button
				>{/if}
			{#if chosen.length}<button class="button" onclick={() => (refusing = chosen)}
					>Refuse {plural(chosen.length, 'file')}…</button
				>{/if}
		</div>
		<Table
			label="Arrivals"
			rows={data.rows}
			key={(row) => row.id}
			empty="Nothing has come in. Make a hatch at a folder and send its link to whoever has files for you."
			{selection}
			tickName={(row) => (undecided.includes(row) ? `Tick ${row.fileName}` : null)}
			lines
			least="sm:min-w-[820px]"
			columns={[
				{ id: 'file', head: 'File', cell: file, by: (row) => row.fileName },
				{ id: 'from', head: 'From', cell: from, by: (row) => row.sender },
				{ id: 'for', head: 'For', cell: meantFor, by: (row) => row.placeName },
				{
					id: 'came',
					head: 'Came',
					text: (row) => whenText(row.at),
					by: (row) => new Date(row.at).getTime(),
					class: 'whitespace-nowrap text-ink-2'
				},
				{ id: 'checked', head: 'Checked', cell: checked, class: 'max-w-[200px] text-[12px]' },
				{ id: 'state', head: 'State', cell: state, by: (row) => row.state },
				{ id: 'do', head: 'Do', quiet: true, cell: acts, class: 'whitespace-nowrap', right: true }
			]}
		/>
	</div>
</div>
{#if sorting.length}<SortArrivals
		bind:open={() => sorting.length > 0, (open) => !open && ((sorting = []), selection.clear())}
		arrivals={sorting}
		project={data.frame.project.id}
		numbering={data.frame.project.numbering}
		done={again}
	/>{/if}
{#if refusing.length > 0}<ReasonDialog
		bind:open={() => refusing.length > 0, (open) => !open && (refusing = [])}
		title="Refuse {refusing.length === 1 ? refusing[0]!.fileName : plural(refusing.length, 'file')}?"
		consequence="{refusing.some((r) => r.senderEmail)
			? 'Whoever left an address gets a mail with what you write.'
			: 'The sender left no address, so nobody is told.'} What is refused is thrown away after two days."
		label="What to tell them"
		button="Refuse"
		dangerous
		act={refuse}
	/>{/if}

{#snippet file(row: Row)}<b class="font-semibold [overflow-wrap:anywhere]">{row.fileName}</b><span
		class="block text-[11.5px] text-ink-2">{kindWord(row.mediaType, row.fileName)}, {sizeText(row.size)}</span
	>{/snippet}
{#snippet from(row: Row)}{row.sender}{#if row.senderEmail}<span class="block text-[11.5px] text-ink-2"
			>{row.senderEmail}</span
		>{/if}{#if row.note}<span class="block max-w-[240px] text-[12px] text-ink-2">“{row.note}”</span
		>{/if}{/snippet}
{#snippet meantFor(row: Row)}<a class="link" href="{base}/place/{row.place}">{row.placeName}</a><span
		class="block text-[11.5px] text-ink-2">{row.hatch ? `hatch “${row.hatch}”` : 'put in with Drop'}</span
	>{/snippet}
{#snippet checked(row: Row)}<span class={row.scan?.fault ? 'text-fault' : 'text-ink-2'}
		>{row.scan
			? (row.scan.fault ??
				(row.scan.scanner ? `nothing found by ${row.scan.scanner}` : 'no scanner is installed'))
			: ''}</span
	>{/snippet}
{#snippet state(row: Row)}<span class="tag {STATE[row.state][1]}">{STATE[row.state][0]}</span
	>{#if row.decidedBy}<span class="block text-[11.5px] text-ink-2"
			>{row.decidedBy.split(' ')[0]}, {whenText(row.decidedAt!)}{row.reason ? `: ${row.reason}` : ''}</span
		>{/if}{/snippet}
{#snippet acts(row: Row)}
	{#if row.state === 'waiting'}
		<a class="link" href={addressOf('arrivalFile', { place: row.place, arrival: row.id })} download
			>Download</a
		>
		<button class="button ml-2" onclick={() => (sorting = [row])}>Sort in…</button>
	{/if}
	{#if row.state === 'waiting' || row.state === 'unsafe'}<button
			class="button ml-1"
			onclick={() => (refusing = [row])}>Refuse…</button
		>{/if}
	{#if row.document}<a class="link" href="{base}/document/{row.document}">Open</a>{/if}
{/snippet}
