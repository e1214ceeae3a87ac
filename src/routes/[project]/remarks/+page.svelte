<script lang="ts">
	import { addressOf } from '$lib/client/cupboard';
	import { onMount } from 'svelte';
	import { isOverdue, plainRemark, REMARK_FILTERS, type RemarkFilter } from '$lib/core/remarks/remarks';
	import { onTouched } from '$lib/ui/platform/live.svelte';
	import { refresh } from '$lib/ui/platform/refresh';
	import { dayText, plural, whenText } from '$lib/ui/platform/words';
	import { projectDay } from '$lib/ui/platform/project-day';

	let { data } = $props();
	const code = $derived(data.frame.project.code.toLowerCase());
	const today = projectDay();
	let words = $state('');
	const rows = $derived.by(() => {
		const wanted = words.trim().toLowerCase();
		return data.remarks.filter(
			(r) =>
				!wanted ||
				[r.documentNumber, r.documentTitle, r.by, r.from, r.text, r.quote, r.assigned?.name ?? ''].some((t) =>
					t.toLowerCase().includes(wanted)
				)
		);
	});
	const late = $derived(data.remarks.filter((r) => isOverdue(r, today)).length);
	const LABEL: Record<RemarkFilter, string> = {
		open: 'Open',
		mine: 'For me to settle',
		settled: 'Settled',
		all: 'All'
	};
	const asked = (filter: RemarkFilter) => ({ filter, ...(data.place ? { place: data.place } : {}) });
	const address = (filter: RemarkFilter) => `?${new URLSearchParams(asked(filter))}`;
	onMount(() => onTouched(['remarks', 'places'], () => refresh('cupboard:remarks')));
</script>

<svelte:head><title>Remarks · {data.frame.project.name}</title></svelte:head>
<div class="flex h-full flex-col px-5 py-3">
	<div class="mb-2 flex flex-wrap items-center gap-x-4 gap-y-1.5">
		<h1 class="text-[21px]">Remarks</h1>
		<p class="text-ink-2">{plural(data.remarks.length, 'remark')}{late ? `, ${late} overdue` : ''}</p>
		<nav class="flex" aria-label="Which remarks">
			{#each REMARK_FILTERS as one (one)}<a
					class="button rounded-none {data.filter === one ? '!border-act !bg-act-soft' : ''}"
					aria-current={data.filter === one}
					href={address(one)}>{LABEL[one]}</a
				>{/each}
		</nav>
		<input
			class="field !w-[220px]"
			type="search"
			aria-label="Narrow by words"
			placeholder="Number, person or words"
			bind:value={words}
		/>
		<a
			class="button ml-auto"
			download
			href={addressOf('remarkList', { project: data.frame.project.id, ...asked(data.filter) })}>Export CSV</a
		>
	</div>
	<div class="min-h-0 flex-1 overflow-auto">
		<table class="w-full bg-sheet [&_td]:px-2 [&_td]:py-1.5 [&_td]:align-top [&_th]:px-2">
			<thead class="sticky top-0 z-10 bg-film text-[12px]"
				><tr class="border-b border-ink"
					><th class="py-1.5">Document</th><th>No.</th><th>From</th><th>Remark</th><th class="max-md:hidden"
						>Who settles it</th
					><th>Due</th><th class="max-md:hidden">State</th></tr
				></thead
			>
			<tbody>
				{#each rows as row (row.id)}
					<tr class="border-b border-rule-2">
						<td class="whitespace-nowrap"
							><a
								class="link font-mono text-[12px]"
								href="/{code}/document/{row.document}?remark={row.number}">{row.documentNumber}</a
							><span class="block max-w-[220px] truncate text-[12px] text-ink-2">{row.documentTitle}</span
							></td
						>
						<td class="font-mono text-[12px]">{row.number}</td>
						<td class="whitespace-nowrap"
							>{row.by}<span class="block text-[12px] text-ink-2">{row.from} · {whenText(row.at)}</span></td
						>
						<td
							>{#if row.quote}<span class="block text-[12px] text-ink-2">“{row.quote.slice(0, 100)}”</span
								>{/if}{plainRemark(row.text)}{#if row.answers.length}<span
									class="block text-[12px] text-ink-2"
									>{row.answers.at(-1)!.by}: {plainRemark(row.answers.at(-1)!.text)}</span
								>{/if}</td
						>
						<td class="max-md:hidden">{row.assigned?.name ?? ''}</td>
						<td class="whitespace-nowrap {isOverdue(row, today) ? 'font-semibold text-fault' : ''}"
							>{row.due ? `${dayText(row.due)}${isOverdue(row, today) ? ', overdue' : ''}` : ''}</td
						>
						<td class="max-md:hidden {row.settled ? 'text-done' : ''}"
							>{row.settled
								? `settled by ${row.settled.by}${row.settled.note ? `: ${row.settled.note}` : ''}`
								: 'open'}</td
						>
					</tr>
				{:else}<tr
						><td colspan="7" class="!p-6 text-ink-2"
							>{data.remarks.length
								? 'Nothing fits the words.'
								: data.filter === 'mine'
									? 'Nothing waits for you to settle.'
									: 'No remarks here.'}</td
						></tr
					>{/each}
			</tbody>
		</table>
	</div>
</div>
