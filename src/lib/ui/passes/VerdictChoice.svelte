<script lang="ts" module>
	import type { Verdict } from '../../core/releases';

	/** How each verdict looks, where it is given. */
	export const VERDICT_LOOK: Record<Verdict, string> = {
		A: 'bg-done text-sheet print:text-ink',
		B: 'bg-act text-on-act print:text-ink',
		C: 'bg-lock text-sheet print:text-ink',
		D: 'bg-fault text-sheet print:text-ink'
	};
</script>

<script lang="ts">
	import { VERDICT_LABEL, VERDICTS } from '../../core/releases';

	/** One of the four verdicts on a document, or none yet; pressed again, it is taken back. */
	let {
		number,
		value,
		choose
	}: { number: string; value: Verdict | null; choose: (verdict: Verdict | null) => void } = $props();
</script>

<span role="radiogroup" aria-label="Verdict on {number}" class="inline-flex">
	{#each VERDICTS as v (v)}<button
			type="button"
			role="radio"
			aria-checked={value === v}
			title={VERDICT_LABEL[v]}
			class="-ml-px border border-rule px-2.5 py-1 font-semibold {value === v
				? VERDICT_LOOK[v]
				: 'text-ink-2 print:hidden'}"
			onclick={() => choose(value === v ? null : v)}>{v}</button
		>{/each}
</span>
