<script lang="ts">
	import { onMount } from 'svelte';
	import Dialog from './Dialog.svelte';
	import { onKeys, screen } from '../platform/shortcuts.svelte';

	/** `/` goes to the find field; `?` lists the keys of the screen. */
	let {
		find,
		help
	}: { find: () => void; /** Address of the pages that say how everything works. */ help: string } = $props();
	let open = $state(false);

	onMount(() => onKeys({ '/': () => find(), '?': () => (open = true) }));
</script>

<Dialog bind:open title="Keys of this screen">
	<dl class="grid grid-cols-[64px_1fr] gap-y-1.5">
		{#each [{ key: '/', says: 'Find' }, ...screen.shortcuts, { key: '?', says: 'This list' }] as s (s.key)}
			<dt>
				<kbd class="rounded-sm border border-rule bg-film px-1.5 font-mono">{s.key.toUpperCase()}</kbd>
			</dt>
			<dd>{s.says}</dd>
		{/each}
	</dl>
	<p class="mt-4 border-t border-rule pt-3">
		<a class="link" href={help} onclick={() => (open = false)}>How Cupboard works</a>, a screen a subject
	</p>
</Dialog>
