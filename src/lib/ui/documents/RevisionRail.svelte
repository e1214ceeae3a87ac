<script lang="ts">
	import type { VersionRow } from '../../core/documents/rows';
	import { dayText, plural } from '../platform/words';

	/**
	 * The history of a document as a rail: squares are issued revisions, circles working saves; each opens. Two tabs
	 * above it choose what to compare: they are dragged, or moved with the arrow keys.
	 */
	let {
		versions,
		current,
		base,
		pair,
		choose,
		changes
	}: {
		versions: VersionRow[];
		current: string;
		base: string;
		/** The labels that are compared; null shows no tabs. */
		pair: { from: string; to: string } | null;
		choose: (from: string, to: string) => void;
		/** What was found between the two, once they are compared. */
		changes?: { total: number; current: number; step: (by: number) => void };
	} = $props();

	const inOrder = $derived([...versions].reverse());
	const indexOf = (label: string) => inOrder.findIndex((v) => v.label === label);
	let rail = $state<HTMLElement>();
	/** A long history begins where one is in it. */
	$effect(() => {
		const stop = rail?.querySelector(`[data-stop="${CSS.escape(current)}"]`);
		stop?.scrollIntoView({ block: 'nearest', inline: 'nearest' });
	});
	/** While a tab is dragged: which, and the stop it is over. */
	let dragged = $state<{ tab: 'from' | 'to'; at: number } | null>(null);
	const at = $derived({
		from: dragged?.tab === 'from' ? dragged.at : pair ? indexOf(pair.from) : 0,
		to: dragged?.tab === 'to' ? dragged.at : pair ? indexOf(pair.to) : 0
	});
	const middle = (index: number) => ((index + 0.5) / inOrder.length) * 100;

	function nearest(event: PointerEvent): number {
		const box = rail!.getBoundingClientRect();
		const share = (event.clientX - box.left) / box.width;
		return Math.max(0, Math.min(inOrder.length - 1, Math.floor(share * inOrder.length)));
	}
	function place(tab: 'from' | 'to', index: number) {
		const stop = inOrder[Math.max(0, Math.min(inOrder.length - 1, index))]!.label;
		const next = { ...pair!, [tab]: stop };
		// The earlier of the two is always where one comes from.
		if (indexOf(next.from) > indexOf(next.to)) choose(next.to, next.from);
		else choose(next.from, next.to);
	}
	function keys(tab: 'from' | 'to', event: KeyboardEvent) {
		const by = { ArrowLeft: -1, ArrowRight: 1, Home: -inOrder.length, End: inOrder.length }[event.key];
		if (by === undefined) return;
		event.preventDefault();
		place(tab, at[tab] + by);
	}
</script>

<nav
	class="flex h-[88px] shrink-0 items-center gap-6 border-t-2 border-ink bg-sheet px-5"
	aria-label="Revisions"
>
	<div class="hidden shrink-0 lg:block">
		<p class="font-semibold">Revisions</p>
		<p class="text-[11.5px] text-ink-2">
			{pair && inOrder.length > 1 ? 'drag the two tabs to compare' : 'choose one to open it'}
		</p>
	</div>
	<div class="min-w-0 flex-1 overflow-x-auto">
		<div class="relative pt-7" style:min-width="{inOrder.length * 58}px" bind:this={rail}>
			{#if pair && inOrder.length > 1}
				<span
					class="absolute top-[37px] h-2 border-y border-ink-2"
					style:left="{middle(Math.min(at.from, at.to))}%"
					style:width="{Math.abs(middle(at.to) - middle(at.from))}%"
					style:background="repeating-linear-gradient(90deg, var(--plank-2) 0 5px, transparent 5px 8px)"
					aria-hidden="true"
				></span>
				{#each ['from', 'to'] as const as tab (tab)}
					<button
						class="absolute top-0 z-10 h-6 min-w-[34px] -translate-x-1/2 cursor-ew-resize touch-none rounded-[2px] px-1.5 text-[11px] font-semibold text-sheet {tab ===
						'from'
							? 'bg-fault'
							: 'bg-act'}"
						style:left="{middle(at[tab])}%"
						role="slider"
						aria-label="Compare {tab}"
						aria-valuemin={0}
						aria-valuemax={inOrder.length - 1}
						aria-valuenow={at[tab]}
						aria-valuetext={inOrder[at[tab]]?.label}
						onkeydown={(e) => keys(tab, e)}
						onpointerdown={(e) => {
							e.currentTarget.setPointerCapture(e.pointerId);
							dragged = { tab, at: at[tab] };
						}}
						onpointermove={(e) => dragged && (dragged = { tab, at: nearest(e) })}
						onpointerup={() => {
							if (dragged) place(dragged.tab, dragged.at);
							dragged = null;
						}}
						onpointercancel={() => (dragged = null)}>{tab}</button
					>
				{/each}
			{/if}
			<ol class="relative flex justify-start">
				{#each inOrder as v, i (v.label)}
					<li class="relative flex min-w-[58px] flex-1 justify-center" data-stop={v.label}>
						<span
							class="absolute top-[12px] h-[2px] bg-ink {i === 0 ? 'left-1/2' : 'left-0'} {i ===
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
								class="block h-[14px] w-[14px] border-2 border-ink {v.issued ? '' : 'rounded-full'} {v.issued
									? 'bg-ink'
									: 'bg-sheet'} {v.label === current ? 'outline-2 outline-offset-2 outline-plank' : ''}"
							></span>
							<span class="mt-1 font-mono text-[11.5px] {v.label === current ? 'font-bold' : ''}"
								>{v.label}</span
							>
						</a>
					</li>
				{/each}
			</ol>
		</div>
	</div>
	{#if changes}
		<div class="shrink-0">
			<p class="font-semibold">{plural(changes.total, 'change')}</p>
			<p class="mt-1 flex items-center gap-1.5">
				<button
					class="button"
					aria-label="Change before"
					disabled={!changes.total}
					onclick={() => changes.step(-1)}>◂</button
				>
				<span class="font-mono text-[12px] whitespace-nowrap"
					>{changes.current + 1 || '–'} of {changes.total}</span
				>
				<button
					class="button"
					aria-label="Next change"
					disabled={!changes.total}
					onclick={() => changes.step(1)}>▸</button
				>
			</p>
		</div>
	{:else if pair && inOrder.length > 1}
		<a class="button" href="{base}/compare?from={pair.from}&to={pair.to}">Compare</a>
	{/if}
</nav>
