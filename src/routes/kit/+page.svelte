<script lang="ts">
	import Avatar from '$lib/ui/kit/Avatar.svelte';
	import Combobox from '$lib/ui/kit/Combobox.svelte';
	import ConfirmDialog from '$lib/ui/kit/ConfirmDialog.svelte';
	import CopyLine from '$lib/ui/kit/CopyLine.svelte';
	import DateField from '$lib/ui/kit/DateField.svelte';
	import DateTimeField from '$lib/ui/kit/DateTimeField.svelte';
	import Dialog from '$lib/ui/kit/Dialog.svelte';
	import Field from '$lib/ui/kit/Field.svelte';
	import Form from '$lib/ui/kit/Form.svelte';
	import PersonPicker from '$lib/ui/kit/PersonPicker.svelte';
	import ReasonDialog from '$lib/ui/kit/ReasonDialog.svelte';
	import Select from '$lib/ui/kit/Select.svelte';
	import { known, PURPOSES } from './examples';

	let number = $state('VFT-MW-LS-00-DR-0101');
	let purpose = $state('');
	let person = $state('');
	let day = $state('2026-11-27');
	let time = $state('17:00');
	let picked = $state('');
	let open = $state(false);
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
