<script lang="ts">
	import type { AnswerOf } from '../../client/cupboard';
	import { dayText } from '../platform/words';
	import { dayAt, shareOf, type Window } from './strip';

	type Stage = AnswerOf<'register'>['rows'][number]['stages'][number];
	/**
	 * A deliverable on a strip of time: what was planned, issued and is expected of each stage, with the slip between.
	 * With `drag` a planned mark can be moved; where it is let go is told, and the strip stays as it is until the plan is
	 * another.
	 */
	let {
		stages,
		names,
		window,
		today,
		stage,
		drag
	}: {
		stages: readonly Stage[];
		/** Names of the stages by their keys. */
		names: Readonly<Record<string, string>>;
		window: Window;
		today: string;
		/** The stage that stands out; null for all alike. */
		stage: string | null;
		drag?: ((stage: string, day: string) => void) | undefined;
	} = $props();

	let picture = $state<SVGSVGElement>();
	let moving = $state<{ stage: string; share: number } | null>(null);
	const percent = (share: number) => `${(share * 100).toFixed(2)}%`;
	const at = (day: string) => percent(shareOf(day, window));
	const inside = (day: string | null): day is string =>
		day !== null && day >= window.from && day <= window.to;
	const clipped = (day: string) => Math.min(1, Math.max(0, shareOf(day, window)));
	const words = $derived(
		stages
			.map((one) =>
				[
					names[one.stage] ?? one.stage,
					one.planned ? `planned ${dayText(one.planned)}` : 'no planned day',
					one.actual
						? `issued ${dayText(one.actual)}`
						: one.forecast
							? `expected ${dayText(one.forecast)}`
							: 'nothing expected'
				].join(', ')
			)
			.join('; ')
	);

	function shareUnder(event: PointerEvent) {
		const box = picture!.getBoundingClientRect();
		return Math.min(1, Math.max(0, (event.clientX - box.left) / box.width));
	}
	function start(event: PointerEvent, one: Stage) {
		if (!drag || event.button !== 0) return;
		event.preventDefault();
		(event.currentTarget as SVGElement).setPointerCapture(event.pointerId);
		moving = { stage: one.stage, share: shareUnder(event) };
	}
	function move(event: PointerEvent) {
		if (moving) moving = { ...moving, share: shareUnder(event) };
	}
	function end(event: PointerEvent) {
		if (!moving) return;
		const { stage: of } = moving;
		const day = dayAt(shareUnder(event), window);
		moving = null;
		if (event.type === 'pointerup' && day !== stages.find((one) => one.stage === of)?.planned)
			drag?.(of, day);
	}
	const DIAMOND = 'M0 -5.5 L5.5 0 L0 5.5 L-5.5 0 Z';
</script>

<svg bind:this={picture} class="block h-[22px] w-full overflow-visible" role="img" aria-label={words}>
	{#if inside(today)}<line
			x1={at(today)}
			x2={at(today)}
			y1="-6"
			y2="28"
			class="stroke-act"
			stroke-width="1"
		/>{/if}
	{#each stages as one (one.stage)}
		{@const faint = stage !== null && stage !== one.stage}
		{@const end_ = one.actual ?? one.forecast}
		<g class={faint ? 'opacity-35' : ''}>
			{#if one.planned && end_ && one.slip !== null && one.slip > 0 && !(clipped(one.planned) === clipped(end_))}<line
					x1={percent(clipped(one.planned))}
					x2={percent(clipped(end_))}
					y1="11"
					y2="11"
					class="stroke-fault"
					stroke-width="1.8"
					stroke-dasharray={one.actual ? undefined : '2.5 2'}
				/>{/if}
			{#if inside(one.planned)}<svg x={at(one.planned)} y="11" class="overflow-visible">
					<path
						d={DIAMOND}
						class="fill-sheet stroke-ink {drag ? 'cursor-ew-resize touch-none' : ''}"
						stroke-width="1.2"
						data-planned={one.stage}
						role="presentation"
						onpointerdown={(event) => start(event, one)}
						onpointermove={move}
						onpointerup={end}
						onpointercancel={end}><title>{names[one.stage]} planned {dayText(one.planned)}</title></path
					>
				</svg>{/if}
			{#if inside(one.actual)}<svg x={at(one.actual)} y="11" class="pointer-events-none overflow-visible">
					<path d={DIAMOND} class="fill-ink stroke-ink" stroke-width="1" />
				</svg>{/if}
			{#if inside(one.forecast)}<svg
					x={at(one.forecast)}
					y="11"
					class="overflow-visible {one.forecast === one.planned ? 'pointer-events-none' : ''}"
				>
					<path d={DIAMOND} class="fill-lock-soft stroke-lock" stroke-width="1.4"
						><title>{names[one.stage]} expected {dayText(one.forecast)}</title></path
					>
					{#if one.own}<circle r="1.6" class="fill-lock" />{/if}
				</svg>{/if}
		</g>
	{/each}
	{#if moving}<svg x={percent(moving.share)} y="11" class="pointer-events-none overflow-visible">
			<path d={DIAMOND} class="fill-act-soft stroke-act" stroke-width="1.6" />
			<text y="-8" text-anchor="middle" class="fill-act font-mono text-[11px] font-semibold"
				>{dayText(dayAt(moving.share, window))}</text
			>
		</svg>{/if}
</svg>
