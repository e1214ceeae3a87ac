<script lang="ts">
	import Select from '../kit/Select.svelte';
	import type { Column } from '../../core/files/settle';
	import type { Line, Settling } from './settling.svelte';
	import SendingState from './SendingState.svelte';
	import { sizeText } from '../platform/words';

	/** The table in which numbers, titles and tags of many files are settled, and what becomes of each. */
	let { settling }: { settling: Settling } = $props();

	const HEADS: [Column, string, string][] = [
		['number', 'Number', 'w-[190px] font-mono text-[12px]'],
		['title', 'Title', 'min-w-[180px]'],
		['tags', 'Tags', 'w-[110px]']
	];

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
	/** What became of a line is chosen in one field; adding beside changes its number and is done with. */
	function choose(choice: Line['becomes'] | 'beside', line: Line) {
		if (choice === 'beside') settling.beside(line);
		else line.becomes = choice;
	}
</script>

{#if settling.undecided.length > 1}<p
		class="flex flex-wrap items-center gap-2 border-l-4 border-wait bg-wait-soft px-3 py-1.5"
	>
		<span class="mr-auto">{settling.undecided.length} files have numbers that are taken.</span>
		<button
			type="button"
			class="button"
			disabled={settling.busy}
			onclick={() => settling.decideAll('version')}>All become the next version</button
		>
		<button type="button" class="button" disabled={settling.busy} onclick={() => settling.decideAll('beside')}
			>Add all beside, under the next numbers</button
		>
	</p>{/if}
<div class="max-h-[52vh] overflow-auto border border-rule">
	<table class="w-full">
		<thead class="sticky top-0 z-10 bg-film text-[12px]"
			><tr
				><th class="py-1 pl-2">File</th>
				{#each HEADS as [column, name] (column)}<th
						>{name}{#if settling.lines.length > settling.at + 1}<button
								type="button"
								class="link ml-2 font-normal"
								disabled={settling.busy}
								title="Give the lines below line {settling.at + 1} its {name.toLowerCase()}{column ===
								'number'
									? ', counting up'
									: ''}"
								onclick={() => settling.fillDown(column)}>Fill down from {settling.at + 1}</button
							>{/if}</th
					>{/each}
				<th class="w-[200px]">State</th><th><span class="sr-only">Leave out</span></th></tr
			></thead
		>
		<tbody>
			{#each settling.lines as line, i (line.key)}
				{@const faults = settling.faultsOf(line)}
				{@const used = settling.usedBy(line)}
				<tr class="border-t border-rule-2 align-top" onfocusin={() => (settling.at = i)}>
					<td class="max-w-[240px] py-1.5 pr-3 pl-2"
						><span class="block truncate" title={line.way}
							><span class="mr-1 font-mono text-[11px] text-ink-2">{i + 1}</span>{line.way}</span
						><span class="text-[11.5px] text-ink-2">{sizeText(line.file.size)}</span
						>{#if line.isArchive && line.open}<button
								type="button"
								class="link ml-2 text-[12px]"
								disabled={settling.busy}
								onclick={() => settling.unpack(line)}>Unpack</button
							>{/if}</td
					>
					{#each HEADS as [column, name, width] (column)}
						<td class="py-1 pr-2"
							><input
								class="field {width}"
								aria-label="{name} of {line.file.name}"
								aria-invalid={column === 'number' && faults.length > 0}
								bind:value={line[column]}
								disabled={line.state === 'done' ||
									settling.busy ||
									(line.becomes === 'version' && column !== 'number')}
								maxlength={column === 'title' ? 180 : 400}
								onpaste={(event) => pasted(event, i, column)}
								onchange={() => column === 'number' && settling.look()}
							/>{#if column === 'number'}<span class="block text-[11px] text-ink-2">{line.hint}</span
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
									/>{/if}{/if}</td
						>
					{/each}
					<td class="py-1.5">
						{#if line.state === 'going'}{#if line.sending}<SendingState sending={line.sending} />{/if}
						{:else if line.state === 'done'}<span class="text-done">✓ added</span>
						{:else if faults.length}{#each faults as fault (fault)}<span class="block text-[12px] text-fault"
									>{fault}</span
								>{/each}
						{:else if line.fault}<span role="alert" class="text-[12px] text-fault">{line.fault}</span>
						{:else}<span class="text-ink-2">ready</span>{/if}
					</td>
					<td class="py-1.5 pr-2 text-right"
						>{#if line.state === 'ready' || line.state === 'fault'}<button
								type="button"
								class="link text-[12px] whitespace-nowrap"
								disabled={settling.busy}
								onclick={() => settling.leaveOut(line)}>Leave out</button
							>{/if}</td
					>
				</tr>
			{/each}
		</tbody>
	</table>
</div>
