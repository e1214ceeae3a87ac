<script lang="ts">
	import { Progress } from 'bits-ui';

	/** How far something is that takes its time; without a figure, that it goes on. */
	let {
		label,
		value,
		max = 1,
		class: look = ''
	}: { label: string; value: number | null; max?: number; class?: string } = $props();
	const part = $derived(value === null || max <= 0 ? null : Math.min(1, Math.max(0, value / max)));
</script>

<Progress.Root
	{value}
	{max}
	aria-label={label}
	class="block h-1.5 w-full overflow-hidden rounded-full bg-rule-2 {look}"
	><span
		class="block h-full rounded-full bg-act {part === null ? 'w-1/3 motion-safe:animate-pulse' : ''}"
		style:width={part === null ? null : `${part * 100}%`}
	></span></Progress.Root
>
