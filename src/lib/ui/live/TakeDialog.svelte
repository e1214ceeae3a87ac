<script lang="ts" generics="F extends Ending">
	import { addressOf } from '../../client/cupboard';
	import type { Ending } from '../../core/files/media';
	import Dialog from '../kit/Dialog.svelte';

	/** Takes a live document as a file; what that kind of file cannot hold is said before. */
	let {
		open = $bindable(false),
		format = $bindable(),
		document,
		number,
		what,
		formats,
		losses
	}: {
		open: boolean;
		format: F;
		document: string;
		number: string;
		/** The kind of live document, as people call it. */
		what: string;
		/** Endings with their names. */
		formats: readonly (readonly [F, string])[];
		losses: string[];
	} = $props();
	const name = $derived(formats.find(([one]) => one === format)?.[1] ?? '');
</script>

<Dialog bind:open title="Export {number}">
	<div class="space-y-3">
		<fieldset class="flex flex-wrap gap-4">
			<legend class="label">Kind of file</legend>
			{#each formats as [value, word] (value)}<label class="flex items-center gap-1.5"
					><input type="radio" bind:group={format} {value} />{word}</label
				>{/each}
		</fieldset>
		{#if losses.length}<ul class="border-l-4 border-lock bg-lock-soft px-3 py-1.5">
				{#each losses as one (one)}<li>{one}</li>{/each}
			</ul>{:else}<p class="text-ink-2">Everything that the {what} holds is kept.</p>{/if}
		<p class="text-ink-2">The file says what the {what} says now. It is a copy; the {what} goes on here.</p>
		<div class="flex justify-end gap-2">
			<button class="button" onclick={() => (open = false)}>Cancel</button>
			<a
				class="button button-act"
				download
				href={addressOf('liveFile', { document, format })}
				onclick={() => (open = false)}>Export {name}</a
			>
		</div>
	</div>
</Dialog>
