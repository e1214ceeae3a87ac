<script lang="ts">
	import Select from '../kit/Select.svelte';
	import { ENCODINGS, type Encoding, type Told } from '../../core/files/encoding';

	/** Says how a plain text is encoded and how that is known, and lets one say it anew when it reads wrong. */
	let { told, choose }: { told: Told; choose: (encoding: Encoding | null) => void } = $props();
	const HOW = { mark: '', form: '', guess: 'guessed: change it when letters look wrong' };
	/** As the file tells, until somebody says otherwise. */
	const TOLD = 'told';
	let chosen = $state<Encoding | typeof TOLD>(TOLD);
	const choices = $derived([
		{ value: TOLD, label: chosen === TOLD ? ENCODINGS[told.encoding] : 'as told from the file' } as const,
		...(Object.entries(ENCODINGS) as [Encoding, string][]).map(([value, label]) => ({ value, label }))
	]);
</script>

<p
	class="flex shrink-0 flex-wrap items-center gap-2 border-b border-rule bg-sheet px-3 py-1 text-[12px] text-ink-2"
>
	<span aria-hidden="true">Encoding</span><Select
		label="Encoding"
		{choices}
		value={chosen}
		class="w-auto max-w-[260px] text-[12px]"
		choose={(next) => {
			chosen = next;
			choose(next === TOLD ? null : next);
		}}
	/>
	{chosen === TOLD ? HOW[told.by] : ''}
</p>
