<script lang="ts">
	import { SvelteSet } from 'svelte/reactivity';
	import Avatar from '$lib/ui/kit/Avatar.svelte';
	import Chart from '$lib/ui/kit/Chart.svelte';
	import Combobox from '$lib/ui/kit/Combobox.svelte';
	import ConfirmDialog from '$lib/ui/kit/ConfirmDialog.svelte';
	import CopyLine from '$lib/ui/kit/CopyLine.svelte';
	import DateField from '$lib/ui/kit/DateField.svelte';
	import DateTimeField from '$lib/ui/kit/DateTimeField.svelte';
	import Dialog from '$lib/ui/kit/Dialog.svelte';
	import Empty from '$lib/ui/kit/Empty.svelte';
	import Field from '$lib/ui/kit/Field.svelte';
	import FileField from '$lib/ui/kit/FileField.svelte';
	import Form from '$lib/ui/kit/Form.svelte';
	import Menu from '$lib/ui/kit/Menu.svelte';
	import OrderedList from '$lib/ui/kit/OrderedList.svelte';
	import PersonPicker from '$lib/ui/kit/PersonPicker.svelte';
	import Progress from '$lib/ui/kit/Progress.svelte';
	import ReasonDialog from '$lib/ui/kit/ReasonDialog.svelte';
	import Select from '$lib/ui/kit/Select.svelte';
	import SuggestedInput from '$lib/ui/kit/SuggestedInput.svelte';
	import Table from '$lib/ui/kit/Table.svelte';
	import Tabs from '$lib/ui/kit/Tabs.svelte';
	import { toast } from '$lib/ui/kit/toast';
	import { COLUMNS, FIGURES, known, PURPOSES, SHEETS } from './examples';

	let number = $state('VFT-MW-LS-00-DR-0101');
	let purpose = $state('');
	let leaf = $state('oak');
	let person = $state('');
	let day = $state('2026-11-27');
	let time = $state('17:00');
	let picked = $state('');
	let open = $state(false);
	let tab = $state<'versions' | 'trail'>('versions');
	let file = $state.raw<File>();
	let ordered = $state(SHEETS.slice(0, 4).map((one) => ({ id: one.number, name: one.number })));
	const selection = new SvelteSet<string>();
	let shown = $state(true);
	let reasoning = $state(false);
	let asking = $state.raw<{
		title: string;
		text: string;
		button: string;
		act: () => Promise<unknown>;
	} | null>(null);
	const wait = () => new Promise((done) => setTimeout(done, 400));
	const people = known.flatMap((k) =>
		k.kind === 'person' ? [{ value: k.id, label: k.name, detail: k.email }] : []
	);
</script>

{#snippet part(name: string, says: string)}<header class="border-b border-rule pb-1">
		<h2 class="font-mono text-[14px]">{name}</h2>
		<p class="text-[12px] text-ink-2">{says}</p>
	</header>{/snippet}

<svelte:head><title>Kit</title></svelte:head>
<main class="mx-auto max-w-[920px] space-y-8 p-6">
	<h1 class="text-[22px]">Kit</h1>
	<div class="grid gap-8 md:grid-cols-2">
		<section class="space-y-2">
			{@render part('Form, Field', 'Sends once; what is wrong stands at its field.')}
			<Form act={wait} button="Change">
				<Field
					label="Number"
					name="number"
					bind:value={number}
					required
					mono
					hint="As the numbering rule says."
				/>
				<Field label="What changed" name="note" lines={3} />
			</Form>
		</section>
		<section class="space-y-2">
			{@render part('Select', 'One of a few.')}
			<Select label="Purpose" choices={PURPOSES} bind:value={purpose} placeholder="Choose a purpose" />
			{@render part('Combobox', 'One of many, found by typing.')}
			<Combobox label="Who settles it" choices={people} bind:value={person} placeholder="Type a name" />
			{@render part('SuggestedInput', 'Any text, with what is usually put there.')}
			<SuggestedInput
				class="field"
				label="Leaf"
				bind:value={leaf}
				suggestions={['oak', 'steel', 'steel, fire 30']}
			/>
			{@render part('PersonPicker', 'Somebody: people, departments, groups, newcomers by address.')}
			<PersonPicker
				label="Whom to let in"
				{known}
				newcomers
				pick={(one) => (picked = 'id' in one ? one.name : one.email)}
			/>
			<p role="status" class="text-ink-2">{picked ? `Picked: ${picked}` : 'Nobody picked yet.'}</p>
		</section>
		<section class="space-y-2">
			{@render part('DateField, DateTimeField', 'Typed as people write it, or chosen from a calendar.')}
			<DateField label="Until" bind:value={day} />
			<DateTimeField label="Expected end" bind:day bind:time zone="Europe/Oslo" />
		</section>
		<section class="space-y-2">
			{@render part('Dialog, ReasonDialog, ConfirmDialog', 'Exist only while they are open.')}
			<div class="flex flex-wrap gap-2">
				<button class="button" onclick={() => (open = true)}>Open a dialog</button>
				<button class="button" onclick={() => (reasoning = true)}>Ask for a reason</button>
				<button
					class="button"
					onclick={() =>
						(asking = {
							title: 'Thaw it?',
							text: 'Everybody may change it again.',
							button: 'Thaw',
							act: wait
						})}>Ask first</button
				>
			</div>
			{@render part('CopyLine, Avatar', 'Something to copy; who somebody is, at a glance.')}
			<CopyLine label="Link" value="https://cupboard.example/pass/abcd" />
			<p class="flex items-center gap-2">
				<Avatar name="Oke Lindvar" /><Avatar name="Marine works" code="MW" many /><Avatar
					name="Maren Aldgate"
					outside
				/>
			</p>
		</section>
		<section class="space-y-2">
			{@render part('Menu, toast', 'What can be done, in groups; and that it is done.')}
			<Menu
				label="Folder"
				align="start"
				groups={[
					[
						{ word: 'Rename…', act: () => toast('Renamed.') },
						{ word: 'Move…', act: () => toast.success('Moved.', { takeBack: () => toast('Back again.') }) },
						{ word: 'Freeze…', act: () => {}, why: 'Only who manages this place may freeze it.' }
					],
					[{ word: 'Show sizes', ticked: shown, act: () => (shown = !shown) }],
					[{ word: 'Remove…', act: () => toast.error('It is in hand.') }]
				]}
			/>
			{@render part('Tabs', 'Several views of one thing.')}
			{#snippet versions()}<p class="p-3">P01, P02, P03</p>{/snippet}
			{#snippet trail()}<p class="p-3">Oke handed P03 in.</p>{/snippet}
			<Tabs
				bind:value={tab}
				class="border border-rule"
				tabs={[
					{ value: 'versions', word: 'Versions 3', panel: versions },
					{ value: 'trail', word: 'Trail', panel: trail }
				]}
			/>
			{@render part('Progress, Empty', 'How far it is; what will stand here.')}
			<Progress label="Sent" value={64} max={100} />
			<Progress label="Reading" value={null} />
			<Empty>Nothing has come in. Make a hatch at a folder and send its link.</Empty>
		</section>
		<section class="space-y-2">
			{@render part('Chart', 'A picture, and the same figures as a table.')}
			<Chart title="Issued for construction" data={FIGURES} />
		</section>
		<section class="space-y-2 md:col-span-2">
			{@render part('FileField', 'One file, chosen or dropped on it.')}
			<FileField label="The file you worked on" bind:file />
		</section>
		<section class="space-y-2">
			{@render part('OrderedList', 'An order set by hand: drag a handle, or press the arrow keys on it.')}
			<OrderedList label="Sheets in an order" bind:items={ordered}
				>{#snippet row(one)}<span class="font-mono">{one.name}</span>{/snippet}</OrderedList
			>
		</section>
		<section class="space-y-2 md:col-span-2">
			{@render part(
				'Table',
				'Columns as data; heads sort, Shift ticks as far as here, arrows go through it.'
			)}
			<div class="h-[260px]">
				<Table
					label="Sheets"
					rows={SHEETS}
					key={(one) => one.number}
					columns={COLUMNS}
					empty="No sheets."
					{selection}
					tickName={(one) => `Tick ${one.number}`}
					open={(one) => toast(`${one.number} is opened.`)}
					fills
				/>
			</div>
			<p role="status" class="text-ink-2">{selection.size} ticked</p>
		</section>
	</div>
</main>
{#if open}<Dialog bind:open title="A dialog"><p>What it is about.</p></Dialog>{/if}
{#if reasoning}<ReasonDialog
		bind:open={reasoning}
		title="Break the lock?"
		consequence="Whoever has it in hand is told."
		button="Break the lock"
		act={wait}
	/>{/if}
{#if asking}<ConfirmDialog bind:asking done={() => {}} />{/if}
