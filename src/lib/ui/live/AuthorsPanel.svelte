<script lang="ts">
	import Select from '../kit/Select.svelte';
	import type { Passage } from '../../core/text/authorship';
	import type { VersionRow } from '../../core/documents/rows';
	import { cupboard } from '../../client/cupboard';
	import { sentenceOf } from '../platform/api';
	import { colourOf } from './people-look';

	/** Who wrote and who took away what, between two versions or up to now. */
	let {
		document,
		versions,
		changes
	}: {
		document: string;
		versions: VersionRow[];
		/** Counts what is written; with a pause the answer is asked for again. */
		changes: number;
	} = $props();

	/** What was chosen stays when a version comes in. */
	let chosen = $state<string | null>(null);
	const from = $derived(chosen ?? versions[0]?.label ?? '');
	let to = $state('now');
	let answer = $state.raw<{ passages: Passage[]; people: { id: string; name: string }[] } | null>(null);
	let fault = $state('');
	const names = $derived(Object.fromEntries((answer?.people ?? []).map((p) => [p.id, p.name])));

	let stamp = $state(0);
	$effect(() => {
		void changes;
		const pause = setTimeout(() => stamp++, 1_500);
		return () => clearTimeout(pause);
	});
	$effect(() => {
		const asked = { document, from, to };
		if (to === 'now') void stamp;
		fault = '';
		void cupboard
			.liveAuthors(asked)
			.then((found) => (answer = found))
			.catch((error: unknown) => (fault = sentenceOf(error)));
	});
	/** Letters by person, most first. */
	const shares = $derived.by(() => {
		const counted: Record<string, { added: number; removed: number }> = {};
		for (const { runs } of answer?.passages ?? [])
			for (const { change, by, text } of runs) {
				if (change === 'same') continue;
				const one = (counted[by ?? ''] ??= { added: 0, removed: 0 });
				one[change] += text.length;
			}
		return Object.entries(counted).sort((a, b) => b[1].added - a[1].added);
	});
	const changed = $derived((answer?.passages ?? []).filter((p) => p.runs.some((r) => r.change !== 'same')));
</script>

<div class="flex flex-wrap items-center gap-2 px-3 py-2">
	<label class="flex items-center gap-1.5"
		>from <Select
			choices={[
				{ value: '', label: 'the beginning' },
				...versions.map((one) => ({ value: one.label, label: one.label }))
			]}
			bind:value={() => from, (label) => (chosen = label)}
			class="w-auto"
		/></label
	>
	<label class="flex items-center gap-1.5"
		>to <Select
			choices={[
				{ value: 'now', label: 'now' },
				...versions.map((one) => ({ value: one.label, label: one.label }))
			]}
			bind:value={to}
			class="w-auto"
		/></label
	>
</div>
{#if fault}<p role="alert" class="px-3 text-fault">{fault}</p>{/if}
<ul class="px-3">
	{#each shares as [person, one] (person)}<li class="flex gap-2 border-b border-rule-2 py-1">
			<b class="font-semibold" style="color:{colourOf(person)}">{names[person] ?? 'not known'}</b>
			<span class="ml-auto font-mono text-[12px]">+{one.added} −{one.removed}</span>
		</li>{/each}
</ul>
<ol class="px-3 py-2">
	{#each changed as passage, i (i)}<li class="border-b border-rule-2 py-1.5 leading-relaxed">
			{#each passage.runs as run, k (k)}{#if run.change === 'same'}<span class="text-ink-2"
						>{run.text.length > 60 ? `${run.text.slice(0, 28)} … ${run.text.slice(-28)}` : run.text}</span
					>{:else if run.change === 'added'}<ins
						title="{names[run.by ?? ''] ?? 'not known'} wrote this"
						style="color:{colourOf(run.by ?? '')}">{run.text}</ins
					>{:else}<del
						title="{names[run.by ?? ''] ?? 'not known'} took this out"
						style="color:{colourOf(run.by ?? '')}">{run.text}</del
					>{/if}{/each}
		</li>{:else}<li class="py-2 text-ink-2">
			{answer ? 'Nothing was changed between the two.' : 'reading'}
		</li>{/each}
</ol>
