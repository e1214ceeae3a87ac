<script lang="ts">
	import type { Snippet } from 'svelte';
	import type { HTMLAttributes } from 'svelte/elements';
	import { moves, type ViewPort } from './view-port.svelte';

	/** The ground a sheet lies on, with the tools that all sheets share. */
	let {
		port,
		canvas = $bindable(),
		label,
		tools,
		status,
		overlay,
		measuring = false,
		...listeners
	}: {
		port: ViewPort;
		canvas: HTMLCanvasElement | undefined;
		label: string;
		tools?: Snippet;
		status?: string;
		/** What lies over the sheet and takes the pointer itself. */
		overlay?: Snippet;
		/** The pointer sets points. */
		measuring?: boolean;
	} & Pick<
		HTMLAttributes<HTMLDivElement>,
		'onpointerdown' | 'onpointermove' | 'onpointerup' | 'ondblclick'
	> = $props();
</script>

<div class="flex h-full flex-col">
	<div
		class="flex shrink-0 flex-wrap items-center gap-1.5 border-b border-rule bg-sheet px-3 py-1"
		role="toolbar"
		aria-label="View"
	>
		<button class="button" onclick={() => port.zoom(0.8)} aria-label="Zoom out">−</button>
		<span class="min-w-12 text-center font-mono text-[12px] whitespace-nowrap">{port.percent} %</span>
		<button class="button" onclick={() => port.zoom(1.25)} aria-label="Zoom in">+</button>
		<button class="button" onclick={() => port.fit()}>Fit sheet</button>
		{@render tools?.()}
		{#if status}<span class="ml-auto truncate text-[12px] text-ink-2" role="status">{status}</span>{/if}
	</div>
	<!-- svelte-ignore a11y_no_noninteractive_tabindex -->
	<div
		{...listeners}
		class="relative min-h-0 flex-1 touch-none overflow-hidden {measuring
			? 'cursor-crosshair'
			: 'cursor-grab active:cursor-grabbing'}"
		role={overlay ? 'group' : 'img'}
		aria-label={label}
		tabindex="0"
		{@attach moves(port)}
	>
		<canvas bind:this={canvas} class="block h-full w-full"></canvas>
		{@render overlay?.()}
	</div>
</div>
