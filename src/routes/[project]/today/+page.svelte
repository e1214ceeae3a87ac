<script lang="ts">
	import { onMount } from 'svelte';
	import { releaseNumber } from '$lib/core/releases';
	import { isOverdue, plainRemark } from '$lib/core/remarks/remarks';
	import { CHANGES, onTouched } from '$lib/ui/platform/live.svelte';
	import { refresh } from '$lib/ui/platform/refresh';
	import Revision from '$lib/ui/documents/Revision.svelte';
	import { dayText, plural, whenText } from '$lib/ui/platform/words';
	import { projectDay } from '$lib/ui/platform/project-day';

	/** What waits for whoever reads it: remarks to settle, releases to approve, documents to hand in. */
	let { data } = $props();
	const code = $derived(data.frame.project.code.toLowerCase());
	const today = projectDay();
	const late = $derived(
		data.remarks.filter((r) => isOverdue(r, today)).length + data.inHand.filter((d) => d.lock?.stale).length
	);
	const count = $derived(data.remarks.length + data.inHand.length + data.releases.length);
	onMount(() => onTouched(CHANGES, () => refresh('cupboard:today')));
</script>

{#snippet thing(day: string, late: boolean, href: string, number: string, what: string)}
	<span class="w-[92px] whitespace-nowrap {late ? 'font-semibold text-fault' : 'text-ink-2'}"
		>{day}{late ? ', late' : ''}</span
	>
	<a class="link w-[190px] font-mono text-[12px]" {href}>{number}</a>
	<span class="min-w-[220px] flex-1">{what}</span>
{/snippet}

<svelte:head><title>Today · {data.frame.project.name}</title></svelte:head>
<div class="h-full overflow-auto px-5 py-3">
	<div class="mb-3 flex flex-wrap items-baseline gap-x-4">
		<h1 class="text-[21px]">Today</h1>
		<p class="text-ink-2">
			{count ? `${plural(count, 'thing')} for you` : 'Nothing waits for you'}{late ? `, ${late} late` : ''}
		</p>
	</div>
	<section class="mb-5" aria-labelledby="to-settle">
		<h2 id="to-settle" class="border-b border-ink pb-1 text-[14px]">
			Remarks to settle <span class="font-mono text-ink-2">{data.remarks.length}</span>
		</h2>
		<ul>
			{#each data.remarks as row (row.id)}
				<li class="flex flex-wrap items-start gap-x-4 gap-y-0.5 border-b border-rule-2 bg-sheet px-2 py-1.5">
					{@render thing(
						row.due ? dayText(row.due) : 'no day',
						isOverdue(row, today),
						`/${code}/document/${row.document}?remark=${row.number}`,
						row.documentNumber,
						plainRemark(row.text)
					)}
					<span class="text-ink-2">{row.by}, {row.from} · {whenText(row.at)}</span>
				</li>
			{:else}<li class="px-2 py-1.5 text-ink-2">Nobody has given you a remark to settle.</li>{/each}
		</ul>
	</section>
	{#if data.releases.length}<section class="mb-5" aria-labelledby="to-approve">
			<h2 id="to-approve" class="border-b border-ink pb-1 text-[14px]">
				Releases to approve <span class="font-mono text-ink-2">{data.releases.length}</span>
			</h2>
			<ul>
				{#each data.releases as row (row.id)}
					<li class="flex flex-wrap items-start gap-x-4 border-b border-rule-2 bg-sheet px-2 py-1.5">
						{@render thing(
							row.replyBy ? dayText(row.replyBy) : '',
							false,
							`/${code}/releases/${row.number}`,
							releaseNumber(row.number),
							`${row.title}, ${plural(row.documents, 'document')}`
						)}
						<span class="text-ink-2">built by {row.builtBy}</span>
					</li>
				{/each}
			</ul>
		</section>{/if}
	<section aria-labelledby="to-hand-in">
		<h2 id="to-hand-in" class="border-b border-ink pb-1 text-[14px]">
			In your hand <span class="font-mono text-ink-2">{data.inHand.length}</span>
		</h2>
		<ul>
			{#each data.inHand as row (row.id)}
				<li class="flex flex-wrap items-start gap-x-4 border-b border-rule-2 bg-sheet px-2 py-1.5">
					{@render thing(
						row.lock?.expectedEnd ? dayText(row.lock.expectedEnd) : 'no end',
						row.lock?.stale ?? false,
						`/${code}/document/${row.id}`,
						row.number,
						`${row.title}${row.lock?.purpose ? `, for “${row.lock.purpose}”` : ''}`
					)}
					<Revision label={row.label} issued={row.issued} />
				</li>
			{:else}<li class="px-2 py-1.5 text-ink-2">You have nothing in hand.</li>{/each}
		</ul>
	</section>
</div>
