<script lang="ts">
	import { plural } from '../platform/words';
	import type { LiveLine } from './line.svelte';

	/** How the line stands: whether everything that was done here is kept, and what was not taken. */
	let { line }: { line: LiveLine | null } = $props();
	/** What was refused is gone from the document; the page begins again with what the others have. */
	const again = () => location.reload();
</script>

<p role="status" class="text-ink-2">
	{#if !line || line.state === 'opening'}opening
	{:else if line.state === 'waiting'}<span class="text-lock"
			>The line is down. Go on; {line.unsent
				? `${plural(line.unsent, 'change')} of yours wait here`
				: 'what you do is kept here'} until it is back.</span
		>
	{:else if line.state === 'refused'}<span class="text-fault"
			>The server did not take a change{line.refused ? `: ${line.refused.why}` : '.'}
			<button class="link font-semibold" disabled={!line.refused} onclick={again}
				>Open what the others have</button
			></span
		>
	{:else if line.unsent}sending
	{:else}Everything is kept{/if}
</p>
