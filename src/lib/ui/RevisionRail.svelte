<script lang="ts">
	import type { VersionRow } from '../core/rows';
	import { dayText } from './words';

	/** The history of a document as a rail: squares are issued revisions, circles working saves; each opens. */
	let { versions, current, base }: { versions: VersionRow[]; current: string; base: string } = $props();
	const inOrder = $derived([...versions].reverse());
</script>

<nav
	class="flex h-[74px] shrink-0 items-center gap-6 border-t-2 border-ink bg-sheet px-5"
	aria-label="Revisions"
>
	<div class="hidden shrink-0 sm:block">
		<p class="font-semibold">Revisions</p>
		<p class="text-[11.5px] text-ink-2">choose one to open it</p>
	</div>
	<ol class="relative flex min-w-0 flex-1 justify-start overflow-x-auto">
		{#each inOrder as v, i (v.label)}
			<li class="relative flex min-w-[64px] flex-1 justify-center">
				<span
					class="absolute top-[13px] h-[2px] bg-ink {i === 0 ? 'left-1/2' : 'left-0'} {i ===
					inOrder.length - 1
						? 'right-1/2'
						: 'right-0'}"
					aria-hidden="true"
				></span>
				<a
					href="{base}?version={v.label}"
					aria-current={v.label === current ? 'true' : undefined}
					class="relative flex flex-col items-center px-1 pt-1.5 pb-0.5"
					title="{v.label}, {dayText(v.at)}, {v.by ?? ''}: {v.note}"
				>
					<span
						class="block h-[15px] w-[15px] border-2 border-ink {v.issued ? '' : 'rounded-full'} {v.issued
							? 'bg-ink'
							: 'bg-sheet'} {v.label === current ? 'outline-2 outline-offset-2 outline-plank' : ''}"
					></span>
					<span class="mt-1 font-mono text-[11.5px] {v.label === current ? 'font-bold' : ''}">{v.label}</span>
				</a>
			</li>
		{/each}
	</ol>
</nav>
