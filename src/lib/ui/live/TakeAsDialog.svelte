<script lang="ts">
	import type { Node } from 'prosemirror-model';
	import { FORMAT_LABEL, lossesOf, TEXT_FORMATS, type TextFormat } from '../../core/text/losses';
	import Dialog from '../Dialog.svelte';

	/** Takes a live text as a file; what that kind of file cannot hold is said before. */
	let {
		open = $bindable(false),
		document,
		number,
		text
	}: { open: boolean; document: string; number: string; text: Node | null } = $props();
	let format = $state<TextFormat>('docx');
	const losses = $derived(open && text ? lossesOf(text, format) : []);
</script>

<Dialog bind:open title="Take {number} as a file">
	<div class="space-y-3">
		<fieldset class="flex flex-wrap gap-4">
			<legend class="label">Kind of file</legend>
			{#each TEXT_FORMATS as value (value)}<label class="flex items-center gap-1.5"
					><input type="radio" bind:group={format} {value} />{FORMAT_LABEL[value]}</label
				>{/each}
		</fieldset>
		{#if losses.length}<ul class="border-l-4 border-lock bg-lock-soft px-3 py-1.5">
				{#each losses as one (one)}<li>{one}</li>{/each}
			</ul>{:else}<p class="text-ink-2">Everything that the text holds is kept.</p>{/if}
		<p class="text-ink-2">The file says what the text says now. It is a copy; the text goes on here.</p>
		<div class="flex justify-end gap-2">
			<button class="button" onclick={() => (open = false)}>Cancel</button>
			<a
				class="button button-act"
				download
				href="/api/v1/documents/{document}/live/file?format={format}"
				onclick={() => (open = false)}>Take as {FORMAT_LABEL[format]}</a
			>
		</div>
	</div>
</Dialog>
