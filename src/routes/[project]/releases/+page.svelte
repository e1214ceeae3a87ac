<script lang="ts">
	import { refresh } from '$lib/ui/platform/refresh';
	import { onMount } from 'svelte';
	import { releaseNumber } from '$lib/core/releases';
	import { PURPOSE_LABEL } from '$lib/core/revisions/revisions';
	import { onTouched } from '$lib/ui/platform/live.svelte';
	import ReleaseDialog from '$lib/ui/releases/ReleaseDialog.svelte';
	import ReleaseState from '$lib/ui/releases/ReleaseState.svelte';
	import { dayText, plural } from '$lib/ui/platform/words';

	let { data } = $props();
	const code = $derived(data.frame.project.code.toLowerCase());
	let building = $state(false);
	onMount(() => onTouched(['releases'], () => refresh('cupboard:releases')));
	const reply = (r: (typeof data.releases)[number]) => {
		if (!r.issuedAt) return r.replyBy ? `asked by ${dayText(r.replyBy)}` : '';
		if (r.answered === r.documents) return 'all verdicts are in';
		if (r.answered) return `${r.answered} of ${r.documents} verdicts`;
		return r.received ? `received ${dayText(r.received)}` : 'not opened yet';
	};
</script>

<svelte:head><title>Releases · {data.frame.project.name}</title></svelte:head>
<div class="flex h-full flex-col">
	<div class="flex items-center gap-3 px-5 py-3">
		<h1 class="text-[21px]">Releases</h1>
		<p class="text-ink-2">
			{plural(data.releases.length, 'release')}{data.frame.me.controller ? '' : ' that you approve'}
		</p>
		{#if data.frame.me.controller}<button class="button button-act ml-auto" onclick={() => (building = true)}
				>New release</button
			>{/if}
	</div>
	<div class="mx-5 mb-4 min-h-0 flex-1 overflow-auto border-t border-ink bg-sheet">
		{#if data.releases.length}
			<table class="w-full">
				<thead class="sticky top-0 bg-film text-[12px]"
					><tr class="border-b border-ink"
						><th class="py-1.5 pl-3">Number</th><th>Title</th><th class="hidden sm:table-cell">Purpose</th><th
							>State</th
						><th class="hidden md:table-cell">To</th><th class="hidden md:table-cell">Approves</th><th
							class="hidden text-right sm:table-cell">Documents</th
						><th class="hidden pl-6 md:table-cell">Issued</th><th class="hidden md:table-cell">Client</th></tr
					></thead
				>
				<tbody>
					{#each data.releases as r (r.id)}
						<tr class="h-9 border-b border-rule-2 hover:bg-film">
							<td class="pl-3 font-mono font-semibold">{releaseNumber(r.number)}</td>
							<td><a class="font-semibold hover:text-act" href="/{code}/releases/{r.number}">{r.title}</a></td
							>
							<td class="hidden sm:table-cell">{PURPOSE_LABEL[r.purpose]}</td>
							<td><ReleaseState state={r.state} /></td>
							<td class="hidden md:table-cell">{r.to}</td>
							<td class="hidden text-ink-2 md:table-cell">{r.approver}</td>
							<td class="hidden text-right font-mono sm:table-cell">{r.documents}</td>
							<td class="hidden pl-6 text-ink-2 md:table-cell">{r.issuedAt ? dayText(r.issuedAt) : ''}</td>
							<td class="hidden text-ink-2 md:table-cell">{reply(r)}</td>
						</tr>
					{/each}
				</tbody>
			</table>
		{:else}<p class="p-8 text-center text-ink-2">
				{data.frame.me.controller
					? 'No release yet. Tick documents in a folder and put them in a release, or begin an empty one.'
					: 'No release asks for your approval.'}
			</p>{/if}
	</div>
</div>
{#if data.frame.me.controller}{#if building}<ReleaseDialog
			bind:open={building}
			project={data.frame.project.id}
			{code}
			me={data.frame.me.id}
			documents={[]}
		/>{/if}{/if}
