<script lang="ts">
	import { onMount } from 'svelte';
	import { cupboard } from '$lib/client/cupboard';
	import { isReplyOverdue, releaseNumber } from '$lib/core/releases';
	import { isOverdue, plainRemark } from '$lib/core/remarks/remarks';
	import { dayOf } from '$lib/core/time/days';
	import Revision from '$lib/ui/documents/Revision.svelte';
	import { attempt } from '$lib/ui/platform/api';
	import { CHANGES, onTouched } from '$lib/ui/platform/live.svelte';
	import { projectDay, projectZone } from '$lib/ui/platform/project-day';
	import { refresh } from '$lib/ui/platform/refresh';
	import { agoText, dayText, firstName, plural, timeText } from '$lib/ui/platform/words';
	import { inGroups } from '$lib/ui/kit/table';
	import { toast } from '$lib/ui/kit/toast';
	import TodayLine from '$lib/ui/today/TodayLine.svelte';
	import TodayPart from '$lib/ui/today/TodayPart.svelte';
	import TodaySide from '$lib/ui/today/TodaySide.svelte';

	/** What waits for whoever reads it, each with its act in place; beside it what is new, lately open and at hand. */
	let { data } = $props();
	const code = $derived(data.frame.project.code.toLowerCase());
	const today = projectDay();
	const weekEnd = projectDay(7);
	const document = (id: string) => `/${code}/document/${id}`;
	const again = () => refresh('cupboard:today');
	onMount(() => onTouched(CHANGES, again));

	const deciding = $derived(data.releases.filter((release) => release.waitsForMe));
	/** Replies that are overdue are the controllers’ to ask for (T13). */
	const chased = $derived(data.frame.me.controller ? data.releases : []);
	const unanswered = $derived(chased.filter((one) => isReplyOverdue(one, today)));
	/** Verdicts that everybody gave, and not alike: a controller makes one of them (T9). */
	const differing = $derived(chased.filter((one) => one.differing > 0));
	/** Recipients who ask to bring in a colleague (T9). */
	const bringing = $derived(chased.filter((one) => one.colleagues > 0));
	const returned = $derived(data.remarks.filter((row) => row.from === 'client'));
	const given = $derived(data.remarks.filter((row) => row.from !== 'client'));
	/** What came in, by the hatch or folder it came through. */
	const came = $derived(
		inGroups(data.arrivals, (row) => `${row.hatch ?? row.placeName} ${row.sender}`).map(({ rows }) => rows)
	);
	const count = $derived(
		deciding.length +
			data.sent.length +
			bringing.length +
			came.length +
			unanswered.length +
			differing.length +
			data.remarks.length +
			data.inHand.length
	);
	/** What is new, by the folder it lies in; newest first. */
	const fresh = $derived(
		inGroups(data.fresh.rows, (row) => row.folder ?? row.id).map(({ rows }) => ({
			rows,
			by: [...new Set(rows.map((row) => firstName(row.changedBy)).filter(Boolean))].slice(0, 2).join(', ')
		}))
	);
	/** What is due in the next seven days, in its order. */
	const week = $derived(
		[
			...data.remarks.flatMap((row) =>
				row.due
					? [
							{
								day: row.due,
								what: `Settle remark ${row.number} on ${row.documentTitle}`,
								href: document(row.document)
							}
						]
					: []
			),
			...data.inHand.flatMap((row) =>
				row.lock?.expectedEnd
					? [
							{
								day: dayOf(row.lock.expectedEnd, projectZone()),
								what: `Hand in ${row.title}`,
								href: document(row.id)
							}
						]
					: []
			),
			...chased.flatMap((one) =>
				one.replyBy && one.state === 'issued' && one.answered + one.differing < one.asked
					? [
							{
								day: one.replyBy,
								what: `Reply of ${one.to} to ${releaseNumber(one.number)}`,
								href: `/${code}/releases/${one.number}`
							}
						]
					: []
			)
		]
			.filter(({ day }) => day >= today && day <= weekEnd)
			.sort((a, b) => a.day.localeCompare(b.day))
	);

	/** Until when, for a day; how long ago, when it is over. */
	function until(day: string | null): string {
		if (!day) return 'no day set';
		if (day === today) return 'today';
		return day < today ? `late, ${dayText(day)}` : dayText(day);
	}
	function backBy(end: string | null | undefined): string {
		if (!end) return 'no end set';
		const day = dayOf(end, projectZone());
		return day === today ? `today ${timeText(end)}` : until(day);
	}
	async function giveBack(row: (typeof data.inHand)[number]) {
		if (!(await attempt(() => cupboard.giveBackLock({ document: row.id })))) return;
		toast(`${row.number} is given back unchanged.`);
		await again();
	}
	async function seen() {
		if (!(await attempt(() => cupboard.markProjectSeen({ project: data.frame.project.id })))) return;
		await again();
	}
</script>

<svelte:head><title>Today · {data.frame.project.name}</title></svelte:head>
<div class="h-full overflow-auto lg:grid lg:grid-cols-[1fr_340px] lg:overflow-hidden">
	<div class="px-4 py-3 lg:overflow-auto">
		<h1 class="sr-only">Today</h1>
		{#if deciding.length || came.length || data.sent.length || bringing.length}<TodayPart
				head="Waits for your decision"
				count={deciding.length + came.length + data.sent.length + bringing.length}
			>
				{#each data.sent as one (one.number)}
					<TodayLine
						day={until(one.replyBy)}
						late={one.replyBy !== null && one.replyBy < today}
						code="Release {releaseNumber(one.number)}"
						href={one.link}
						what={one.title}
						more="{plural(one.documents, 'document')} sent to you by {one.by}{one.answered
							? `, ${one.answered} answered`
							: ''}"
					>
						{#snippet acts()}<a class="button" href={one.link}
								>{one.expects === 'verdicts' ? 'Give verdicts' : 'Confirm receipt'}</a
							>{/snippet}
					</TodayLine>
				{/each}
				{#each deciding as one (one.id)}
					{@const href = `/${code}/releases/${one.number}`}
					<TodayLine
						day={until(one.replyBy)}
						late={one.replyBy !== null && one.replyBy < today}
						code="Release {releaseNumber(one.number)}"
						{href}
						what={one.title}
						more="{plural(one.documents, 'document')} for {one.to}, built by {one.builtBy}"
					>
						{#snippet acts()}<a class="button" {href}>Look through and decide</a>{/snippet}
					</TodayLine>
				{/each}
				{#each bringing as one (one.id)}
					{@const href = `/${code}/releases/${one.number}`}
					<TodayLine
						day=""
						code="Release {releaseNumber(one.number)}"
						{href}
						what="{plural(one.colleagues, 'colleague')} asked for by who got it"
						more="{one.title}; {one.to}"
					>
						{#snippet acts()}<a class="button" {href}>Let in or refuse</a>{/snippet}
					</TodayLine>
				{/each}
				{#each came as rows (rows[0]!.id)}
					{@const [first] = rows}
					<TodayLine
						day={dayText(first!.at)}
						code="Arrivals"
						href="/{code}/arrivals"
						what="{plural(rows.length, 'file')} from {first!.sender}"
						more={first!.hatch ? `through “${first!.hatch}”` : `for ${first!.placeName}`}
					>
						{#snippet acts()}<a class="button" href="/{code}/arrivals">Sort in</a>{/snippet}
					</TodayLine>
				{/each}
			</TodayPart>{/if}
		{#if returned.length || unanswered.length || differing.length}<TodayPart
				head="Came back from the client, or should have"
				count={returned.length + unanswered.length + differing.length}
			>
				{#each returned as row (row.id)}{@render toSettle(row)}{/each}
				{#each differing as one (one.id)}
					{@const href = `/${code}/releases/${one.number}`}
					<TodayLine
						day=""
						code="Release {releaseNumber(one.number)}"
						{href}
						what="Verdicts on {plural(one.differing, 'document')} differ"
						more="{one.title}; {one.to}"
					>
						{#snippet acts()}<a class="button" {href}>Make one of them</a>{/snippet}
					</TodayLine>
				{/each}
				{#each unanswered as one (one.id)}
					{@const href = `/${code}/releases/${one.number}`}
					<TodayLine
						day={until(one.replyBy)}
						late
						code="Release {releaseNumber(one.number)}"
						{href}
						what="{one.asked - one.answered - one.differing} of {plural(one.asked, 'verdict')} missing"
						more="{one.title}; {one.recipients === 1
							? `${one.to} has ${one.received ? '' : 'not '}confirmed receipt`
							: `${one.received} of ${one.recipients} have confirmed receipt`}"
					>
						{#snippet acts()}<a class="button" {href}>Open the release</a>{/snippet}
					</TodayLine>
				{/each}
			</TodayPart>{/if}
		{#if data.inHand.length}<TodayPart head="In your hand" count={data.inHand.length}>
				{#each data.inHand as row (row.id)}
					<TodayLine
						day={backBy(row.lock?.expectedEnd)}
						late={row.lock?.stale ?? false}
						code={row.number}
						href={document(row.id)}
						what={row.title}
						more="{row.lock?.purpose ? `“${row.lock.purpose}”` : ''}{row.wanted
							? ` · ${plural(row.wanted, 'person', 'people')} ${row.wanted === 1 ? 'asks' : 'ask'} for it`
							: ''}"
					>
						{#snippet acts()}<a class="button" href="{document(row.id)}?do=hand-in">Hand in…</a>
							<button class="link" onclick={() => giveBack(row)}>Give back unchanged</button>{/snippet}
					</TodayLine>
				{/each}
			</TodayPart>{/if}
		{#if given.length}<TodayPart head="Given to you to settle" count={given.length}>
				{#each given as row (row.id)}{@render toSettle(row)}{/each}
			</TodayPart>{/if}
		{#if !count}<div class="mt-10 text-center text-ink-2">
				<p class="mb-1 text-[15px] font-semibold text-ink">Nothing waits for you.</p>
				<p class="mx-auto max-w-[56ch]">
					Releases to approve, files that came in, what the client sent back, documents in your hand and
					remarks you are to settle will stand here, each with what you can do about it.
				</p>
			</div>{/if}
	</div>
	<aside class="border-rule px-4 py-3 max-lg:border-t lg:overflow-auto lg:border-l" aria-label="Beside it">
		<TodaySide
			head="New to you"
			count={data.fresh.total}
			filled={fresh.length > 0}
			empty="What others change in your places stands here until you have looked."
		>
			{#snippet more()}{#if data.fresh.total}<button class="link" onclick={seen}>Mark all as seen</button
					>{/if}{/snippet}
			{#each fresh.slice(0, 6) as { rows, by } (rows[0]!.id)}
				{@const [first] = rows}
				<li>
					<a
						class="min-w-0 truncate font-semibold hover:text-act"
						href={first!.folder ? `/${code}/place/${first!.folder}` : document(first!.id)}
						>{first!.place || first!.title}</a
					>
					<span class="tag bg-new-soft font-mono text-[12px] text-new">{rows.length}</span>
					<span class="ml-auto text-[12px] whitespace-nowrap text-ink-2"
						>{by ? `${by} · ` : ''}{agoText(first!.changedAt)}</span
					>
				</li>
			{/each}
			{#if fresh.length > 6}<li>
					<a class="link text-[12px]" href="/{code}/new">{plural(fresh.length - 6, 'more place')}</a>
				</li>{/if}
		</TodaySide>
		<TodaySide head="Lately open" filled={data.lately.length > 0} empty="The documents that you opened last.">
			{#each data.lately as row (row.id)}<li>
					<a class="min-w-0 flex-1 truncate font-semibold hover:text-act" href={document(row.id)}
						>{row.title}</a
					>
					<Revision label={row.label} issued={row.issued} />
				</li>{/each}
		</TodaySide>
		<TodaySide
			head="At hand"
			count={data.kept.length}
			filled={data.kept.length > 0}
			empty="Bookmarks of your own: press B on a document or folder to keep it here."
		>
			{#snippet more()}{#if data.kept.length > 6}<a class="link" href="/{code}/at-hand">All of them</a
					>{/if}{/snippet}
			{#each data.kept.slice(0, 6) as row (row.place)}<li>
					{#if row.state === 'there'}<a
							class="min-w-0 flex-1 truncate font-semibold hover:text-act"
							href={row.kind === 'document' ? document(row.place) : `/${code}/place/${row.place}`}
							>{row.name}</a
						>
						<span class="text-[12px] text-ink-2">{row.kind}</span>
					{:else}<span class="min-w-0 flex-1 truncate text-ink-2">{row.name}</span>
						<span class="text-[12px] text-ink-2"
							>{row.state === 'removed' ? `removed ${dayText(row.removedAt!)}` : 'not open to you'}</span
						>{/if}
				</li>{/each}
		</TodaySide>
		<TodaySide
			head="The next seven days"
			filled={week.length > 0}
			empty="What is due for you, and replies that you wait for."
		>
			{#each week as one (`${one.day} ${one.what}`)}<li>
					<span class="w-[52px] shrink-0 font-mono text-[12px] text-ink-2">{dayText(one.day)}</span>
					<a class="min-w-0 flex-1 truncate hover:text-act" href={one.href}>{one.what}</a>
				</li>{/each}
		</TodaySide>
	</aside>
</div>

{#snippet toSettle(row: (typeof data.remarks)[number])}
	{@const href = `${document(row.document)}?remark=${row.number}`}
	<TodayLine
		day={until(row.due)}
		late={isOverdue(row, today)}
		code={row.documentNumber}
		{href}
		what={plainRemark(row.text)}
		more="{row.by}{row.from === 'client' ? '' : `, ${row.from}`}"
	>
		{#snippet acts()}<a class="button" {href}>Go to the place</a>{/snippet}
	</TodayLine>
{/snippet}
