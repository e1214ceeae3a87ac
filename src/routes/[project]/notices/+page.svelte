<script lang="ts">
	import { onMount } from 'svelte';
	import { NOTICE_LABEL } from '$lib/core/notices/notices';
	import { cupboard } from '$lib/client/cupboard';
	import { attempt } from '$lib/ui/platform/api';
	import { CHANGES, onTouched } from '$lib/ui/platform/live.svelte';
	import { refresh } from '$lib/ui/platform/refresh';
	import { whenText } from '$lib/ui/platform/words';

	let { data } = $props();
	onMount(() => onTouched(CHANGES, () => refresh('cupboard:notices')));
	async function read(ids: string[]) {
		await attempt(() => cupboard.readNotices({ project: data.frame.project.id, notices: ids }));
		await refresh('cupboard:notices');
	}
</script>

<svelte:head><title>Notices · {data.frame.project.name}</title></svelte:head>
<div class="h-full overflow-auto px-5 py-3">
	<div class="mb-2 flex flex-wrap items-center gap-x-3 gap-y-1">
		<h1 class="text-[21px]">Notices</h1>
		<p class="whitespace-nowrap text-ink-2">{data.unread ? `${data.unread} not read` : 'all read'}</p>
		<span class="ml-auto flex gap-2"
			><a class="button" href="/me">How you are told</a>{#if data.unread}<button
					class="button"
					onclick={() => read([])}>Mark all as read</button
				>{/if}</span
		>
	</div>
	<ul class="bg-sheet">
		{#each data.notices as notice (notice.id)}
			<li class="flex items-baseline gap-3 border-b border-rule-2 px-3 py-2">
				<span class="h-[7px] w-[7px] shrink-0 self-center rounded-full {notice.readAt ? '' : 'bg-new'}"
					>{#if !notice.readAt}<span class="sr-only">not read</span>{/if}</span
				>
				<span class="w-[70px] shrink-0 text-[12px] text-ink-2 sm:w-[110px]">{whenText(notice.at)}</span>
				<a
					class="min-w-0 flex-1 hover:underline {notice.readAt ? '' : 'font-semibold'}"
					href={notice.way}
					onclick={() => !notice.readAt && void read([notice.id])}>{notice.sentence}</a
				>
				<span class="hidden text-[12px] text-ink-2 lg:inline">{NOTICE_LABEL[notice.kind]}</span>
			</li>
		{:else}<li class="p-6 text-ink-2">Nothing has been told to you yet.</li>{/each}
	</ul>
</div>
