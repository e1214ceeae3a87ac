<script lang="ts">
	import type { Snippet } from 'svelte';
	import type { Present } from '../../core/live/live';
	import Avatar from '../kit/Avatar.svelte';
	import type { LiveLine } from './line.svelte';
	import LineState from './LineState.svelte';
	import RefusedBar from './RefusedBar.svelte';

	/** What stands over every live document: how one is here, whether everything is kept, and who else is here. */
	let {
		line,
		me,
		mine,
		putIn,
		children
	}: {
		line: LiveLine | null;
		me: Present;
		/** How one is here: writing, suggesting, reading. */
		mine: Snippet;
		/** Puts what one may still change of a refused copy into the document; says what came of it. */
		putIn?: (held: Uint8Array) => { said: string; whole: boolean };
		/** Buttons at the end. */
		children?: Snippet;
	} = $props();
	const others = $derived((line?.people ?? []).filter((p) => p.id !== me.id));
</script>

<div class="flex flex-wrap items-center gap-x-3 gap-y-1 border-b border-rule bg-sheet px-3 py-1">
	{@render mine()}
	<LineState {line} />
	<ul class="ml-auto flex items-center gap-1" aria-label="Who is here">
		{#each others as one (one.id)}<li title="{one.name} is here"><Avatar name={one.name} /></li>{/each}
		{#if others.length}<li class="text-ink-2">
				{others.length === 1 ? `${others[0]!.name} is here` : `${others.length} others are here`}
			</li>{:else if line?.state === 'live'}<li class="text-ink-2">Nobody else is here</li>{/if}
	</ul>
	{@render children?.()}
</div>
<RefusedBar {line} {...putIn ? { putIn } : {}} />
