<script lang="ts">
	import type { Snippet } from 'svelte';
	import type { Present } from '../../core/live';
	import Avatar from '../Avatar.svelte';
	import { saveFile } from '../files';
	import { plural } from '../words';
	import type { LiveLine } from './line.svelte';

	/** What stands over every live document: how one is here, whether everything is kept, and who else is here. */
	let {
		line,
		me,
		mine,
		children
	}: {
		line: LiveLine | null;
		me: Present;
		/** How one is here: writing, suggesting, reading. */
		mine: Snippet;
		/** Buttons at the end. */
		children?: Snippet;
	} = $props();
	const others = $derived((line?.people ?? []).filter((p) => p.id !== me.id));
	/** What was refused is gone from this browser; the page begins again with what the others have. */
	const again = () => location.reload();
	/** What was refused is not lost: everything that this browser holds, as a file to take the own part from. */
	function keepCopy() {
		const held = JSON.stringify(line!.doc.toJSON(), null, '\t');
		saveFile(new TextEncoder().encode(held), 'what this browser held.json', 'application/json');
	}
</script>

<div class="flex flex-wrap items-center gap-x-3 gap-y-1 border-b border-rule bg-sheet px-3 py-1">
	{@render mine()}
	<p role="status" class="text-ink-2">
		{#if !line || line.state === 'opening'}opening
		{:else if line.state === 'waiting'}<span class="text-lock"
				>The line is down. Go on; {line.unsent
					? `${plural(line.unsent, 'change')} of yours wait here`
					: 'what you write is kept here'} until it is back.</span
			>
		{:else if line.state === 'refused'}<span class="text-fault"
				>The server did not take a change: {line.why}
				<button class="link" onclick={keepCopy}>Keep a copy of what is here</button>
				<button class="link font-semibold" onclick={again}>Open what the others have</button></span
			>
		{:else if line.unsent}sending
		{:else}Everything is kept{/if}
	</p>
	<ul class="ml-auto flex items-center gap-1" aria-label="Who is here">
		{#each others as one (one.id)}<li title="{one.name} is here"><Avatar name={one.name} /></li>{/each}
		{#if others.length}<li class="text-ink-2">
				{others.length === 1 ? `${others[0]!.name} is here` : `${others.length} others are here`}
			</li>{:else if line?.state === 'live'}<li class="text-ink-2">Nobody else is here</li>{/if}
	</ul>
	{@render children?.()}
</div>
