<script lang="ts">
	import type { AnswerOf } from '../../client/cupboard';
	import { drawnWords } from '../../core/releases/drawn';
	import { burnedCopy } from '../markup/burned-copy';
	import MarkLayers from '../markup/MarkLayers.svelte';
	import type { Markup } from '../markup/markup.svelte';
	import { attempt } from '../platform/api';
	import { saveFile } from '../platform/save-file';
	import { plural } from '../platform/words';

	/** What clients drew on a sheet with their verdicts: whose marks are shown, what they say, and a copy with them. */
	let {
		answers,
		markup,
		file
	}: {
		answers: AnswerOf<'releaseMarks'>['answers'];
		/** Null while it is not there yet. */
		markup: Markup | null;
		/** Where the sheet lies, for copies; null for who may not download. */
		file: { address: string; shown: string; mediaType: string; title: string } | null;
	} = $props();

	const codes = $derived(answers.map((one) => one.layer));
	const nameOf = (layer: string) => {
		const one = answers.find((answer) => answer.layer === layer)!;
		return `${one.name}, ${one.company}: ${plural(one.marks.length, 'mark')}`;
	};
	const words = $derived(
		answers.flatMap(({ layer, name, company, marks }) =>
			drawnWords(marks).map((one) => ({ layer, whose: `${name}, ${company}`, ...one }))
		)
	);
	let busy = $state(false);
	async function copy() {
		if (!file || !markup) return;
		busy = true;
		const marks = [...markup.marks.values()].filter((mark) => !markup.hidden.has(mark.layer));
		const { address, ...about } = file;
		const done = await attempt(() => burnedCopy(address, { ...about, marks, codes, scales: new Map() }));
		busy = false;
		if (done) saveFile(done, `${file.title} with their marks.pdf`, 'application/pdf');
	}
</script>

<section aria-label="Drawn with the verdicts" class="space-y-2 border-b border-rule px-4 py-3">
	<h2 class="text-[15px]">Drawn with the verdicts</h2>
	{#if markup}<MarkLayers {markup} {codes} legend="Whose marks are shown" {nameOf} />{/if}
	<ul class="space-y-1">
		{#each words as one (`${one.layer} ${one.page}`)}<li>
				<span class="text-[12px] text-ink-2">{one.whose}, page {one.page}</span>
				<span class="block break-words">{one.text}</span>
			</li>{/each}
	</ul>
	{#if file}<button class="button" disabled={busy || !markup} onclick={copy}
			>{busy ? 'Making the copy…' : 'Copy with their marks, PDF'}</button
		>{/if}
</section>
