<script lang="ts">
	import { refresh, refreshAll } from '$lib/ui/platform/refresh';
	import DoorClosedIcon from '@lucide/svelte/icons/door-closed';
	import EyeIcon from '@lucide/svelte/icons/eye';
	import SnowflakeIcon from '@lucide/svelte/icons/snowflake';
	import LockIcon from '@lucide/svelte/icons/lock';
	import { onMount } from 'svelte';
	import { cupboard } from '$lib/client/cupboard';
	import { attempt } from '$lib/ui/platform/api';
	import { onTouched } from '$lib/ui/platform/live.svelte';
	import ChooseSchemes from '$lib/ui/documents/ChooseSchemes.svelte';
	import FirstSteps from '$lib/ui/places/FirstSteps.svelte';
	import MakeShelf from '$lib/ui/places/MakeShelf.svelte';
	import { agoText, dayText, firstName, plural } from '$lib/ui/platform/words';
	import { releaseNumber } from '$lib/core/releases';

	let { data } = $props();
	const base = $derived(`/${data.frame.project.code.toLowerCase()}`);
	const sum = (pick: (shelf: (typeof data.shelves)[number]) => number) =>
		data.shelves.reduce((n, s) => n + pick(s), 0);
	const fresh = $derived(sum((s) => s.fresh));
	let making = $state(false);
	let choosing = $state(false);

	onMount(() =>
		onTouched(['places', 'documents', 'in-hand', 'releases', 'access'], () => refresh('cupboard:shelves'))
	);

	async function seen() {
		if (await attempt(() => cupboard.markProjectSeen({ project: data.frame.project.id })))
			await refresh('cupboard:shelves');
	}
</script>

<svelte:head><title>Shelves · {data.frame.project.name}</title></svelte:head>
<div class="h-full overflow-auto px-5 pt-3 pb-4">
	<div class="mb-2 flex flex-wrap items-center gap-x-3 gap-y-2">
		<h1 class="text-[21px]">Shelves</h1>
		<p class="text-ink-2">
			{plural(data.shelves.length, 'shelf', 'shelves')} · {plural(
				sum((s) => s.documents),
				'document'
			)} · {sum((s) => s.inHand)} in hand{fresh ? ` · ${fresh} new to you` : ''}
		</p>
		<div class="ml-auto flex gap-2">
			<a class="button" href="{base}/removed">Removed</a>
			{#if fresh}<button class="button" onclick={seen}>Mark all as seen</button>{/if}
			{#if data.frame.me.controller}<button class="button" onclick={() => (making = true)}>New shelf</button
				>{/if}
		</div>
	</div>

	{#each data.overdue as release (release.number)}
		<p class="mb-2 border-l-4 border-fault bg-fault-soft px-3 py-1.5 text-fault">
			<a class="link font-semibold" href="{base}/releases/{release.number}"
				>Release {releaseNumber(release.number)}</a
			>
			is overdue: the client’s reply was asked by {dayText(release.replyBy!)}.
		</p>
	{/each}

	{#if data.alone.length || data.drops.length}
		<section
			aria-label="Shared with you"
			class="mb-2 border-b-[6px] border-plank pt-2 pb-2 shadow-[0_2px_0_var(--rule)]"
		>
			<h2 class="text-[14px]">Shared with you</h2>
			<ul class="mt-1.5 flex flex-wrap gap-1.5">
				{#each data.alone as one (one.id)}<li>
						<a
							class="flex h-[44px] max-w-[260px] items-center gap-2 rounded-t-[3px] border border-rule bg-sheet px-2.5 hover:border-ink-2"
							href={one.kind === 'document' ? `${base}/document/${one.id}` : `${base}/place/${one.id}`}
							><b class="truncate font-semibold">{one.name}</b><span class="shrink-0 text-[11.5px] text-ink-2"
								>{one.viewOnly ? 'view only' : one.level}</span
							></a
						>
					</li>{/each}
				{#each data.drops as drop (drop.id)}<li>
						<a
							class="flex h-[44px] items-center gap-2 rounded-t-[3px] border border-dashed border-ink-2 bg-sheet px-2.5"
							href="{base}/drop/{drop.id}">Put files in{drop.by ? ` for ${drop.by}` : ''}</a
						>
					</li>{/each}
			</ul>
		</section>
	{/if}
	{#each data.shelves as shelf (shelf.id)}
		<section
			aria-label={shelf.name}
			class="grid grid-cols-[1fr] items-end border-b-[6px] border-plank shadow-[0_2px_0_var(--rule)] md:grid-cols-[164px_1fr_128px]"
		>
			<div class="pt-3 pb-2">
				<h2 class="flex items-center gap-2 text-[14px]">
					{#if shelf.department}<span
							class="rounded-sm bg-frame px-1.5 font-mono text-[11px] leading-[18px] text-on-frame"
							>{shelf.department.code}</span
						>{/if}
					<a href="{base}/place/{shelf.id}" class="hover:text-act">{shelf.name}</a>
				</h2>
				<p class="text-[11.5px] text-ink-2">
					{shelf.department
						? `${shelf.department.lead ?? 'no lead yet'} · ${plural(shelf.department.people, 'person', 'people')}`
						: 'the project’s own'}
				</p>
				{#if shelf.viewOnly}<span class="tag bg-rule-2 text-[11px] font-normal"
						><EyeIcon size={11} aria-hidden="true" />view only</span
					>{/if}
				{#if shelf.frozen}<span class="tag bg-wait-soft text-[11px] text-wait" title={shelf.frozen.reason}
						><SnowflakeIcon size={11} aria-hidden="true" />frozen</span
					>{/if}
			</div>
			<ul class="flex flex-wrap gap-x-1.5 pt-3">
				{#each shelf.boxes as box (box.id)}
					<li class="min-w-0">
						<a
							href="{base}/place/{box.id}"
							class="relative mt-2 flex h-[72px] w-[132px] flex-col justify-between rounded-t-[3px] border border-b-0 border-rule bg-sheet px-2.5 pt-1.5 pb-1 hover:border-ink-2"
						>
							<span
								class="absolute -top-[5px] left-2.5 h-[5px] w-7 border border-b-0 border-rule bg-sheet"
								aria-hidden="true"
							></span>
							<span class="line-clamp-2 shrink-0 leading-tight font-semibold">{box.name}</span>
							<span>
								<span class="block truncate text-[11.5px] text-ink-2"
									>{box.lastAt ? `${firstName(box.lastBy)} · ${agoText(box.lastAt)}` : 'empty'}</span
								>
								<span class="flex h-5 items-center gap-1">
									<span class="mr-auto font-mono text-[12px]">{box.documents}</span>
									{#if box.closed}<DoorClosedIcon size={12} class="text-ink-2" aria-label="closed" />{/if}
									{#if box.frozen}<SnowflakeIcon size={12} class="text-wait" aria-label="frozen" />{/if}
									{#if box.viewOnly && !shelf.viewOnly}<EyeIcon
											size={12}
											class="text-ink-2"
											aria-label="view only"
										/>{/if}
									{#if box.fresh}<span
											class="rounded-full bg-new px-1.5 font-mono text-[11px] leading-[17px] font-semibold text-sheet"
											title="new to you">{box.fresh}<span class="sr-only"> new to you</span></span
										>{/if}
									{#if box.inHand}<span
											class="tag bg-lock-soft px-1 font-mono text-[11px] leading-[17px] text-lock"
											title="in hand"
											><LockIcon size={10} strokeWidth={2.5} aria-hidden="true" />{box.inHand}<span
												class="sr-only"
											>
												in hand</span
											></span
										>{/if}
								</span>
							</span>
						</a>
					</li>
				{:else}<li class="py-6 text-ink-2">
						No folders yet. <a class="link" href="{base}/place/{shelf.id}">Open the shelf</a> to make one.
					</li>{/each}
			</ul>
			<dl class="hidden pb-2 pl-2 md:block">
				{#if shelf.inHand}<div class="flex gap-2">
						<dt class="w-7 text-right font-mono font-semibold text-lock">{shelf.inHand}</dt>
						<dd>in hand</dd>
					</div>{/if}
				{#if shelf.fresh}<div class="flex gap-2">
						<dt class="w-7 text-right font-mono font-semibold text-new">{shelf.fresh}</dt>
						<dd>new to you</dd>
					</div>{/if}
			</dl>
		</section>
	{:else}
		{#if data.frame.me.controller}<FirstSteps
				{base}
				departments={data.frame.departments}
				numbering={data.frame.project.numbering}
				revisions={data.frame.project.revisions}
				chooseSchemes={() => (choosing = true)}
				makeShelf={() => (making = true)}
			/>{:else}<p class="mt-16 text-center text-ink-2">
				No shelf is open to you yet. Ask the document controller, or the lead of your department.
			</p>{/if}
	{/each}
	<p class="mt-2.5 flex flex-wrap gap-4 text-[11.5px] text-ink-2">
		<span class="flex items-center gap-1.5"
			><LockIcon size={11} strokeWidth={2.5} class="text-lock" aria-hidden="true" />in hand: locked by someone
			working</span
		>
		<span class="flex items-center gap-1.5"
			><SnowflakeIcon size={11} class="text-wait" aria-hidden="true" />frozen: only Manage changes anything</span
		>
		<span class="flex items-center gap-1.5"
			><span class="h-2.5 w-2.5 rounded-full bg-new"></span>new: changed by others since you looked</span
		>
	</p>
</div>
{#if data.frame.me.controller}<MakeShelf
		bind:open={making}
		project={data.frame.project.id}
		departments={data.frame.departments}
	/>{/if}
{#if choosing}<ChooseSchemes
		bind:open={choosing}
		project={data.frame.project.id}
		code={data.frame.project.code}
		numbering={data.frame.project.numbering}
		revisions={data.frame.project.revisions}
		settings="{base}/settings"
		done={refreshAll}
	/>{/if}
