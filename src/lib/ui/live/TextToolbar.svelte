<script lang="ts">
	import Select from '../kit/Select.svelte';
	import Menu from '../kit/Menu.svelte';
	import type { Command, EditorState } from 'prosemirror-state';
	import { isInTable } from 'prosemirror-tables';
	import { redoCommand, undoCommand } from 'y-prosemirror';
	import {
		BLOCKS,
		blockAt,
		hasMark,
		insertPageBreak,
		insertTable,
		LOOKS,
		TABLE,
		toggleList,
		toggleLook
	} from './text-commands';

	/** Rows and columns of tables that can be begun. */
	const SIZES = [
		[3, 2],
		[3, 3],
		[4, 4],
		[6, 5]
	] as const;

	/** What can be done to the words at the cursor. What does not apply there cannot be pressed. */
	let {
		editor,
		run,
		suggesting,
		addPicture,
		addLink
	}: {
		editor: EditorState;
		run: (command: Command) => void;
		/** While suggesting, only words change; blocks stay what they are. */
		suggesting: boolean;
		addPicture: (file: File) => void;
		addLink: () => void;
	} = $props();

	const block = $derived(blockAt(editor));
	const inTable = $derived(isInTable(editor));
	function choose(event: Event) {
		const field = event.currentTarget as HTMLInputElement;
		if (field.files?.[0]) addPicture(field.files[0]);
		field.value = '';
	}
	/** A press must not take the cursor out of the text. */
	const stay = (event: Event) => event.preventDefault();
</script>

<div
	role="toolbar"
	aria-label="Words and paragraphs"
	class="flex shrink-0 flex-wrap items-center gap-1 border-b border-rule bg-sheet px-3 py-1 [&>*]:shrink-0"
>
	<Select
		class="!w-[150px]"
		label="Kind of paragraph"
		choices={BLOCKS.map((one) => ({ value: one.key, label: one.label }))}
		value={block}
		disabled={suggesting}
		choose={(key) => run(BLOCKS.find((b) => b.key === key)!.run)}
	/>
	<span class="mx-1 h-5 border-l border-rule"></span>
	{#each LOOKS as look (look.label)}<button
			class="button min-w-[30px] justify-center !px-1.5 {hasMark(editor, look.mark) ? '!bg-act-soft' : ''}"
			style={look.style}
			aria-label={look.label}
			aria-pressed={hasMark(editor, look.mark)}
			title={look.label}
			onmousedown={stay}
			onclick={() => run(toggleLook(look.mark))}>{look.sign}</button
		>{/each}
	<span class="mx-1 h-5 border-l border-rule"></span>
	<button
		class="button"
		disabled={suggesting}
		onmousedown={stay}
		onclick={() => run(toggleList('bullet_list'))}>List</button
	>
	<button
		class="button"
		disabled={suggesting}
		onmousedown={stay}
		onclick={() => run(toggleList('ordered_list'))}>Steps</button
	>
	<Menu
		label="Table"
		align="start"
		disabled={suggesting}
		groups={[
			inTable
				? TABLE.map((one) => ({ word: one.label, act: () => run(one.run) }))
				: SIZES.map(([rows, columns]) => ({
						word: `${rows} rows, ${columns} columns`,
						act: () => run(insertTable(rows, columns))
					}))
		]}
	/>
	<label
		class="button cursor-pointer focus-within:outline-2 {suggesting ? 'pointer-events-none opacity-50' : ''}"
		>Picture<input
			type="file"
			accept="image/png,image/jpeg,image/gif,image/webp"
			class="sr-only"
			disabled={suggesting}
			onchange={choose}
		/></label
	>
	<button class="button" disabled={suggesting} onclick={addLink}>Link…</button>
	<button class="button" disabled={suggesting} onmousedown={stay} onclick={() => run(insertPageBreak)}
		>Page break</button
	>
	<span class="mx-1 h-5 border-l border-rule"></span>
	<button
		class="button"
		title="Undo what you did (Ctrl Z)"
		disabled={!undoCommand(editor)}
		onmousedown={stay}
		onclick={() => run(undoCommand)}>Undo</button
	>
	<button
		class="button"
		title="Do it again (Ctrl Y)"
		disabled={!redoCommand(editor)}
		onmousedown={stay}
		onclick={() => run(redoCommand)}>Redo</button
	>
</div>
