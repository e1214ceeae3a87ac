<script lang="ts">
	import Select from '../kit/Select.svelte';
	import { DropdownMenu } from 'bits-ui';
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
	<DropdownMenu.Root>
		<DropdownMenu.Trigger class="button" disabled={suggesting}>Table ▾</DropdownMenu.Trigger>
		<DropdownMenu.Portal>
			<DropdownMenu.Content
				align="start"
				sideOffset={2}
				class="z-50 min-w-[190px] border border-ink bg-sheet py-1 shadow-lg"
			>
				{#if inTable}{#each TABLE as one (one.label)}<DropdownMenu.Item
							class="cursor-pointer px-3 py-1 data-highlighted:bg-act-soft"
							onSelect={() => run(one.run)}>{one.label}</DropdownMenu.Item
						>{/each}
				{:else}{#each [[3, 2], [3, 3], [4, 4], [6, 5]] as const as [rows, columns] (rows * 10 + columns)}<DropdownMenu.Item
							class="cursor-pointer px-3 py-1 data-highlighted:bg-act-soft"
							onSelect={() => run(insertTable(rows, columns))}
							>{rows} rows, {columns} columns</DropdownMenu.Item
						>{/each}{/if}
			</DropdownMenu.Content>
		</DropdownMenu.Portal>
	</DropdownMenu.Root>
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
