<script lang="ts">
	import type { Node } from 'prosemirror-model';
	import { FORMAT_LABEL, lossesOf, TEXT_FORMATS, type TextFormat } from '../../core/text/losses';
	import TakeDialog from './TakeDialog.svelte';

	/** Takes a live text as a file. */
	let {
		open = $bindable(false),
		document,
		number,
		text
	}: { open: boolean; document: string; number: string; text: Node | null } = $props();
	let format = $state<TextFormat>('docx');
</script>

<TakeDialog
	bind:open
	bind:format
	{document}
	{number}
	what="text"
	formats={TEXT_FORMATS.map((one) => [one, FORMAT_LABEL[one]])}
	losses={open && text ? lossesOf(text, format) : []}
/>
