<script lang="ts">
	import { ENCODINGS, type Encoding, type Told } from '../core/encoding';

	/** Says how a plain text is encoded and how that is known, and lets one say it anew when it reads wrong. */
	let { told, choose }: { told: Told; choose: (encoding: Encoding | null) => void } = $props();
	const HOW = { mark: '', form: '', guess: 'guessed: change it when letters look wrong' };
	let chosen = $state<Encoding | ''>('');
</script>

<p
	class="flex shrink-0 flex-wrap items-center gap-2 border-b border-rule bg-sheet px-3 py-1 text-[12px] text-ink-2"
>
	<label class="flex items-center gap-2"
		>Encoding<select
			class="field w-[260px] text-[12px]"
			bind:value={chosen}
			onchange={() => choose(chosen || null)}
		>
			<option value="">{chosen ? 'as told from the file' : ENCODINGS[told.encoding]}</option>
			{#each Object.entries(ENCODINGS) as [name, words] (name)}<option value={name}>{words}</option>{/each}
		</select></label
	>
	{chosen ? '' : HOW[told.by]}
</p>
