<script lang="ts">
	import Select from '../kit/Select.svelte';
	import Table from '../kit/Table.svelte';
	import { COLUMNS, type Column } from '../../core/files/settle';
	import type { Line, Settling } from './settling.svelte';
	import SendingState from './SendingState.svelte';
	import { sizeText } from '../platform/words';

	/** The table in which numbers, titles and tags of many files are settled, and what becomes of each. */
	let { settling }: { settling: Settling } = $props();

	/** What is settled of each: how its column is called, and how wide its fields are. */
	const HEADS: Record<Column, { name: string; width: string }> = {
		number: { name: 'Number', width: 'w-[190px] font-mono text-[12px]' },
		title: { name: 'Title', width: 'min-w-[180px]' },
		tags: { name: 'Tags', width: 'w-[110px]' }
	};
	/** Where each stands, from which columns are filled down and pasted. */
	const places = $derived(new Map(settling.lines.map((line, i) => [line, i])));

	function pasted(event: ClipboardEvent, at: number, column: Column) {
		const text = event.clipboardData?.getData('text/plain').replace(/[\r\n]+$/, '') ?? '';
		// One cell is taken by the field itself.
		if (!/[\t\r\n]/.test(text)) return;
		event.preventDefault();
		void settling.paste(text, at, column);
	}
	function next(line: Line): string {
		const known = settling.usedBy(line)!.document!;
		if (known.mine) return `Hand in as next version of ${known.label}`;
		if (known.holder) return `Set beside ${known.label}: ${known.holder} has it`;
		return `Take in hand and hand in after ${known.label}`;
	}
	const undecided = $derived(settling.busy ? [] : settling.undecided);
	/** What became of a line is chosen in one field; adding beside changes its number and is done with. */
	function choose(choice: Line['becomes'] | 'beside', line: Line) {
		if (choice === 'beside') settling.beside(line);
		else line.becomes = choice;
	}
</script>

{#if undecided.length > 1}<p
		class="flex flex-wrap items-center gap-2 border-l-4 border-wait bg-wait-soft px-3 py-1.5"
	>
		<span class="mr-auto">{undecided.length} files have numbers that are taken.</span>
		<button type="button" class="button" onclick={() => settling.decideAll('version')}
			>All become the next version</button
		>
		<button type="button" class="button" onclick={() => settling.decideAll('beside')}
			>Add all beside, under the next numbers</button
		>
	</p>{/if}
<div class="flex max-h-[52vh] flex-col border border-rule">
	<Table
		label="Files to add"
		rows={settling.lines}
		key={(line) => String(line.key)}
		empty="No files yet."
		fills
		lines
		columns={[
			{ id: 'file', head: 'File', cell: fileCell, class: 'max-w-[240px]' },
			...COLUMNS.map((id) => ({ id, head: HEADS[id].name, headCell: settledHead, cell: settledCell })),
			{ id: 'state', head: 'State', cell: stateCell, class: 'w-[200px]' },
			{ id: 'leave', head: 'Leave out', quiet: true, right: true, cell: leaveCell }
		]}
	/>
</div>

{#snippet fileCell(line: Line)}<span class="block truncate" title={line.way}
		><span class="mr-1 font-mono text-[11px] text-ink-2">{places.get(line)! + 1}</span>{line.way}</span
	><span class="text-[11.5px] text-ink-2">{sizeText(line.file.size)}</span
	>{#if line.isArchive && line.open}<button
			type="button"
			class="link ml-2 text-[12px]"
			disabled={settling.busy}
			onclick={() => settling.unpack(line)}>Unpack</button
		>{/if}{/snippet}
{#snippet settledHead({
	id,
	head
}: {
	id: string;
	head: string;
})}{head}{#if settling.lines.length > settling.at + 1}<button
			type="button"
			class="link ml-2 font-normal whitespace-nowrap"
			disabled={settling.busy}
			title="Give the lines below line {settling.at + 1} its {head.toLowerCase()}{id === 'number'
				? ', counting up'
				: ''}"
			onclick={() => settling.fillDown(id as Column)}>Fill down from {settling.at + 1}</button
		>{/if}{/snippet}
{#snippet settledCell(line: Line, { id }: { id: string })}
	{@const column = id as Column}
	{@const { name, width } = HEADS[column]}
	<input
		class="field {width}"
		aria-label="{name} of {line.file.name}"
		aria-invalid={column === 'number' && line.faults.length > 0}
		bind:value={line[column]}
		disabled={line.state === 'done' || settling.busy || (line.becomes === 'version' && column !== 'number')}
		maxlength={column === 'title' ? 180 : 400}
		onfocus={() => (settling.at = places.get(line)!)}
		onpaste={(event) => pasted(event, places.get(line)!, column)}
		onchange={() => column === 'number' && settling.look()}
	/>{#if column === 'number'}{@const used = settling.usedBy(line)}<span class="block text-[11px] text-ink-2"
			>{line.hint}</span
		>{#if used && line.open}<Select
				class="mt-1 w-[190px] text-[12px]"
				label="What becomes of {line.file.name}"
				choices={[
					{ value: 'undecided', label: 'In use: choose what to do' },
					...(used.document ? [{ value: 'version', label: next(line) } as const] : []),
					{ value: 'beside', label: `Add beside as ${used.free}` }
				]}
				value={line.becomes}
				choose={(choice) => choose(choice, line)}
			/>{/if}{/if}
{/snippet}
{#snippet stateCell(line: Line)}
	{#if line.state === 'going'}{#if line.sending}<SendingState sending={line.sending} />{/if}
	{:else if line.state === 'done'}<span class="text-done">✓ added</span>
	{:else if line.faults.length}{#each line.faults as fault (fault)}<span class="block text-[12px] text-fault"
				>{fault}</span
			>{/each}
	{:else if line.fault}<span role="alert" class="text-[12px] text-fault">{line.fault}</span>
	{:else}<span class="text-ink-2">ready</span>{/if}
{/snippet}
{#snippet leaveCell(line: Line)}{#if line.state === 'ready' || line.state === 'fault'}<button
			type="button"
			class="link text-[12px] whitespace-nowrap"
			disabled={settling.busy}
			onclick={() => settling.leaveOut(line)}>Leave out</button
		>{/if}{/snippet}
