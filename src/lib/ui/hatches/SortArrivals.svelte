<script lang="ts">
	import Field from '../kit/Field.svelte';
	import Form from '../kit/Form.svelte';
	import Table from '../kit/Table.svelte';
	import PlacePicker from '../kit/PlacePicker.svelte';
	import { onMount, untrack } from 'svelte';
	import { toast } from '../kit/toast';
	import { faultsOf, isShared, sharedNumbers } from '../../core/files/settle';
	import { proposalsFor, usesOf, type InUse } from '../adding/proposing';
	import type { NumberingRule } from '../../core/numbering/numbering';
	import { cupboard } from '../../client/cupboard';
	import { sentenceOf } from '../platform/api';
	import Dialog from '../kit/Dialog.svelte';
	import { plural } from '../platform/words';

	/** Sorts files that came in onto a shelf: each as a document of its own, or as the next version of what is there. */
	interface Arrival {
		id: string;
		place: string;
		fileName: string;
		sender: string;
	}
	let {
		open = $bindable(false),
		arrivals,
		project,
		numbering,
		done
	}: {
		open: boolean;
		arrivals: Arrival[];
		project: string;
		numbering: NumberingRule;
		done: () => Promise<void>;
	} = $props();

	interface Line {
		arrival: Arrival;
		number: string;
		title: string;
		becomes: 'document' | 'version';
		state: 'ready' | 'going' | 'done';
		fault: string;
		/** Somebody wrote in it; nothing proposed may land there any more. */
		typed: boolean;
	}
	let lines = $state<Line[]>(
		untrack(() =>
			arrivals.map((arrival) => ({
				arrival,
				number: '',
				title: '',
				becomes: 'document' as const,
				state: 'ready' as const,
				fault: '',
				typed: false
			}))
		)
	);
	let folder = $state(untrack(() => arrivals[0]!.place));
	let taken = $state<Record<string, InUse | null>>({});
	let note = $state('');
	let fault = $state('');
	/** The fields wait for the first proposal, so that it never lands in what somebody types. */
	let proposed = $state(false);
	const left = $derived(lines.filter((l) => l.state !== 'done'));

	onMount(() => {
		void propose();
	});

	/** Asks for numbers and titles of all that nobody has written in. */
	async function propose() {
		const asked = folder;
		const open = lines.filter((l) => l.state !== 'done' && !l.typed);
		const names = open.map((l) => l.arrival.fileName);
		try {
			let at = 0;
			for await (const { number, title } of proposalsFor(asked, numbering, names)) {
				if (asked !== folder) return;
				const line = open[at++]!;
				if (!line.typed) Object.assign(line, { number, title });
			}
			await look();
		} catch (error) {
			fault = sentenceOf(error);
		}
		proposed = true;
	}
	/** Asks which numbers are taken; a file whose number is that of a document one may work on becomes its next version. */
	async function look() {
		const numbers = [...new Set(lines.map((l) => l.number.trim()).filter((n) => n && !(n in taken)))];
		try {
			for await (const [number, use] of usesOf(project, numbers)) taken[number] = use;
		} catch (error) {
			fault = sentenceOf(error);
		}
		for (const line of lines) line.becomes = documentOf(line) ? 'version' : 'document';
	}
	const documentOf = (line: Line) => taken[line.number.trim()]?.document ?? null;
	const takenBy = (line: Line) => taken[line.number.trim()] ?? null;

	function asOwn(line: Line) {
		let number = takenBy(line)?.free ?? line.number;
		while (lines.some((l) => l !== line && l.number.trim() === number))
			number = number.replace(/\d+$/, (serial) => String(Number(serial) + 1).padStart(serial.length, '0'));
		Object.assign(line, { number, typed: true });
		void look();
	}
	const shared = $derived(sharedNumbers(left.filter((l) => l.becomes === 'document')));
	function faultOf(line: Line): string {
		if (line.state === 'done' || !proposed) return '';
		if (line.fault) return line.fault;
		const document = documentOf(line);
		if (line.becomes === 'version')
			return document?.holder && !document.mine ? `${document.holder} has it in hand.` : '';
		if (takenBy(line)) return `${line.number.trim()} is taken.`;
		if (isShared(shared, line.number)) return 'Another file here has this number too.';
		return faultsOf(numbering, { number: line.number, title: line.title, tags: '' })[0] ?? '';
	}
	const ready = $derived(left.filter((l) => !faultOf(l)));

	async function sortIn() {
		for (const line of ready) {
			const at = { place: line.arrival.place, arrival: line.arrival.id };
			line.state = 'going';
			try {
				if (line.becomes === 'version')
					await cupboard.sortAsVersion({ ...at, document: documentOf(line)!.id, note });
				else
					await cupboard.sortArrival({ ...at, folder, number: line.number.trim(), title: line.title, note });
				line.state = 'done';
			} catch (error) {
				Object.assign(line, { state: 'ready', fault: sentenceOf(error) });
			}
		}
		const sorted = lines.filter((l) => l.state === 'done').length;
		if (sorted === lines.length) {
			toast.success(
				sorted === 1
					? `${lines[0]!.number} is on its shelf.`
					: `${plural(sorted, 'file')} are on their shelves.`
			);
			open = false;
		}
		await done();
	}
</script>

<Dialog
	bind:open
	title={arrivals.length === 1
		? `Sort in ${arrivals[0]!.fileName}`
		: `Sort in ${plural(arrivals.length, 'file')}`}
	wide
>
	<Form
		act={sortIn}
		button={lines.length === 1 ? 'Sort in' : `Sort in ${plural(ready.length, 'file')}`}
		cancel={() => (open = false)}
		disabled={!proposed || !ready.length}
	>
		<div class="max-w-[460px]">
			<PlacePicker
				label="Folder for new documents"
				{project}
				place={{ id: folder, name: '' }}
				picked={({ id }) => {
					folder = id;
					void propose();
				}}
			/>
		</div>
		<div class="max-h-[50vh] overflow-auto border border-rule">
			<Table
				label="Files to sort in"
				rows={lines}
				key={(line) => line.arrival.id}
				empty="There is nothing to sort in."
				lines
				least="sm:min-w-[720px]"
				columns={[
					{ id: 'file', head: 'File', cell: file, class: 'max-w-[220px] [overflow-wrap:anywhere]' },
					{ id: 'number', head: 'Number', cell: number },
					{ id: 'title', head: 'Title', cell: title },
					{ id: 'becomes', head: 'Becomes', cell: becomes, class: 'text-[12px] sm:w-[230px]' }
				]}
			/>
		</div>
		<Field
			label="Note"
			name="note"
			placeholder="Received from {arrivals[0]!.sender}"
			bind:value={note}
			maxlength={2000}
		/>
		{#if fault}<p role="alert" class="text-fault">{fault}</p>{/if}
	</Form>
</Dialog>

{#snippet file(line: Line)}{line.arrival.fileName}<span class="block text-[11.5px] text-ink-2"
		>{line.arrival.sender}</span
	>{/snippet}
{#snippet number(line: Line)}<input
		class="field w-[200px] font-mono text-[12px]"
		aria-label="Number of {line.arrival.fileName}"
		aria-invalid={faultOf(line) !== ''}
		bind:value={line.number}
		oninput={() => ((line.typed = true), (line.fault = ''))}
		onchange={() => void look()}
		disabled={!proposed || line.state !== 'ready'}
		required
	/>{/snippet}
{#snippet title(line: Line)}<input
		class="field min-w-[180px]"
		aria-label="Title of {line.arrival.fileName}"
		value={line.becomes === 'version' ? documentOf(line)?.title : line.title}
		oninput={(e) => ((line.title = e.currentTarget.value), (line.typed = true))}
		disabled={!proposed || line.state !== 'ready' || line.becomes === 'version'}
		required
	/>{/snippet}
{#snippet becomes(line: Line)}{@const document = documentOf(line)}{@const wrong =
		faultOf(line)}{#if line.state === 'done'}<span class="text-done">✓ sorted</span>
	{:else if line.becomes === 'version' && document}next version after {document.label}
		<button type="button" class="link ml-1" onclick={() => asOwn(line)}>as its own document</button>
	{:else}<span class="text-ink-2">a new document</span>{/if}
	{#if wrong}<span role="alert" class="block text-fault">{wrong}</span>{/if}{/snippet}
