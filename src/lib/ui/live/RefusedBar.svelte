<script lang="ts">
	import type { ComponentProps } from 'svelte';
	import { toast } from '../kit/toast';
	import ConfirmDialog from '../kit/ConfirmDialog.svelte';
	import { saveFile } from '../platform/save-file';
	import { whenText } from '../platform/words';
	import type { LiveLine } from './line.svelte';

	/** What the server did not take, and what its author can do with it. */
	let {
		line,
		putIn
	}: {
		line: LiveLine | null;
		/** Puts what one may still change of a refused copy into the document; says what came of it. */
		putIn?: (held: Uint8Array) => { said: string; whole: boolean };
	} = $props();
	/** What was refused is not lost: everything that this browser held, as a file to take the own part from. */
	function keepCopy() {
		const held = JSON.stringify(line!.refused!.copies, null, '\t');
		saveFile(new TextEncoder().encode(held), 'what this browser held.json', 'application/json');
	}
	let asking = $state<ComponentProps<typeof ConfirmDialog>['asking']>(null);
	const letGo = () =>
		(asking = {
			title: 'Let the changes go',
			text: 'What was not taken is forgotten in this browser too, and nothing brings it back.',
			button: 'Discard',
			act: () => line!.dropRefused()
		});
	function put() {
		const { said, whole } = putIn!(line!.refused!.held);
		toast(said);
		if (whole) void line!.dropRefused();
	}
</script>

{#if line?.state === 'live' && line.refused}
	<div class="flex flex-wrap items-center gap-2 border-b border-fault bg-fault-soft px-3 py-1" role="alert">
		<p class="mr-auto">
			What you did was not taken ({whenText(line.refused.at)}): {line.refused.why} This browser still has it.
		</p>
		{#if putIn}<button class="button" onclick={put}>Put in what you may change</button>{/if}
		<button class="button" onclick={keepCopy}>Keep a copy as a file</button>
		<button class="button" onclick={letGo}>Discard…</button>
	</div>
{/if}
{#if asking}<ConfirmDialog bind:asking done={() => {}} />{/if}
