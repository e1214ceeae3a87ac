<script lang="ts">
	import { SUBJECTS } from '$lib/core/help/subjects';
	import SideNav from '$lib/ui/shell/SideNav.svelte';

	/** How Cupboard works: a screen a subject. */
	let { data } = $props();
	const base = $derived(`/${data.frame.project.code.toLowerCase()}`);
	const next = $derived(SUBJECTS[SUBJECTS.findIndex((one) => one.id === data.subject.id) + 1]);
</script>

<svelte:head><title>{data.subject.title} · How Cupboard works</title></svelte:head>
<div class="h-full overflow-auto md:grid md:grid-cols-[230px_1fr] md:overflow-hidden">
	<SideNav
		title="How Cupboard works"
		links={SUBJECTS.map(({ id, title }) => ({
			href: `${base}/help/${id}`,
			word: title,
			current: id === data.subject.id
		}))}
	/>
	<article class="px-6 py-4 md:overflow-auto">
		<h1 class="text-[21px]">{data.subject.title}</h1>
		<p class="mt-1 max-w-[70ch] text-[15px]">{data.subject.lead}</p>
		<div class="mt-4 grid items-start gap-6 xl:grid-cols-[minmax(0,44ch)_1fr]">
			<div>
				<ol class="max-w-[60ch] list-decimal space-y-2 pl-5">
					{#each data.subject.steps as step (step)}<li>{step}</li>{/each}
				</ol>
				<h2 class="mt-5 mb-1 text-[15px]">Good to know</h2>
				<ul class="max-w-[60ch] space-y-1.5">
					{#each data.subject.know as one (one)}<li class="border-l-[3px] border-plank-2 pl-2.5">
							{one}
						</li>{/each}
				</ul>
				<p class="mt-5 flex flex-wrap gap-2">
					{#if data.subject.goes}<a class="button button-act" href="{base}/{data.subject.goes.path}"
							>{data.subject.goes.word}</a
						>{/if}
					{#if next}<a class="button" href="{base}/help/{next.id}">Next: {next.title}</a>{/if}
				</p>
			</div>
			{#if data.subject.picture}<img
					src="/help/{data.subject.picture}.webp"
					alt="{data.subject.title}, as it looks in the demo project"
					loading="lazy"
					class="w-full max-w-[640px] border border-rule {data.subject.picture.startsWith('phone')
						? '!max-w-[260px]'
						: ''}"
				/>{/if}
		</div>
	</article>
</div>
