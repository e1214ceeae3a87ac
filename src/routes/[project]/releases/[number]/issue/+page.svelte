<script lang="ts">
	import { goto } from '$app/navigation';
	import { onMount } from 'svelte';
	import { releaseNumber } from '$lib/core/releases';
	import { toast } from '$lib/ui/kit/toast';
	import { CHANGES, onTouched } from '$lib/ui/platform/live.svelte';
	import { refresh } from '$lib/ui/platform/refresh';
	import IssueRelease from '$lib/ui/releases/IssueRelease.svelte';
	import ReleaseState from '$lib/ui/releases/ReleaseState.svelte';

	let { data } = $props();
	const about = $derived(data.view.release);
	const number = $derived(releaseNumber(about.number));
	const way = $derived(`/${data.frame.project.code.toLowerCase()}/releases/${about.number}`);
	onMount(() =>
		onTouched(
			CHANGES,
			() => refresh('cupboard:release'),
			(n) => n.release === about.id || data.view.items.some((i) => i.documentId === n.document)
		)
	);
</script>

<svelte:head><title>Issue release {number} · {data.frame.project.name}</title></svelte:head>
<div class="flex h-full flex-col">
	<div class="flex flex-wrap items-center gap-2.5 border-b border-rule px-5 py-3 max-sm:px-3">
		<a class="link" href={way}>Release {number}</a>
		<h1 class="text-[21px]">{about.title}: what issuing will do</h1>
		<ReleaseState state={about.state} />
	</div>
	<div class="min-h-0 flex-1">
		<IssueRelease
			project={data.frame.project.id}
			view={data.view}
			publishing={data.publishingPurposes}
			back={() => void goto(way)}
			issued={async (passes) => {
				await goto(way, { state: { passes }, invalidateAll: true });
				toast.success(`Release ${number} is issued and on its way.`);
			}}
		/>
	</div>
</div>
