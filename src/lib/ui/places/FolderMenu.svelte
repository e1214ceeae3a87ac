<script lang="ts">
	import { later } from '../kit/later';
	import { goto } from '$app/navigation';
	import { refresh } from '../platform/refresh';
	import type { Level } from '../../core/access/levels';
	import type { Can } from '../../core/acts/answer';
	import { readFolderList } from '../../core/places/folder-list';
	import type { PlaceAct } from '../../core/places/may';
	import { toast } from '../kit/toast';
	import { cupboard } from '../../client/cupboard';
	import Dialog from '../kit/Dialog.svelte';
	import Field from '../kit/Field.svelte';
	import Form from '../kit/Form.svelte';
	import Menu from '../kit/Menu.svelte';
	import PlacePicker from '../kit/PlacePicker.svelte';
	import { LIVE_KINDS, type LiveKind } from '../../core/live/live';
	import BeginLiveDialog from '../live/BeginLiveDialog.svelte';
	import { ON_SCREEN } from '../live/kinds';
	import ReasonDialog from '../kit/ReasonDialog.svelte';
	import { restorePlace } from './restore';
	import { moveMany } from './selection';
	import { plural } from '../platform/words';
	import { projectDayWords } from '../platform/project-day';

	/** What can be done with the folder itself: make one in it, rename, move, remove. */
	let {
		place,
		project,
		parent,
		code,
		documents,
		inHand,
		can,
		outsideLevel,
		retentionDays,
		bookmark,
		freeze
	}: {
		place: { id: string; name: string; kind: string; atHand: boolean };
		project: string;
		/** The folder around it, when one may look at that. */
		parent: string | null;
		code: string;
		documents: number;
		inHand: number;
		can: Can<PlaceAct>;
		outsideLevel: Level | null;
		retentionDays: number;
		/** Keeps it at hand, or no longer. */
		bookmark: () => void;
		/** Freezes it, or thaws it. */
		freeze: () => void;
	} = $props();

	let asking = $state<'make' | 'rename' | 'move' | null>(null);
	let removing = $state(false);
	let passing = $state(false);
	let hatching = $state(false);
	let beginning = $state(false);
	let kind = $state<LiveKind>('text');
	let name = $state('');
	let to = $state<{ id: string; name: string } | null>(null);

	function begin(what: typeof kind) {
		kind = what;
		beginning = true;
	}
	function ask(what: typeof asking) {
		name = what === 'rename' ? place.name : '';
		to = null;
		asking = what;
	}
	async function act() {
		if (asking === 'make') {
			const { ways } = readFolderList(name);
			const { made, folders } = await cupboard.makeFolders({ parent: place.id, ways: ways ?? [] });
			asking = null;
			if (!made) toast('It is here already.');
			// Who makes one goes into it; who makes a tree sees it from where they are.
			if (folders.length === 1) await goto(`/${code}/place/${folders[0]}`);
			else if (made) toast.success(`${plural(made, 'folder')} made.`);
		} else if (asking === 'rename') await cupboard.renameFolder({ folder: place.id, name });
		else
			await moveMany(project, { documents: [], folders: [place.id] }, to!, () => refresh('cupboard:folder'));
		asking = null;
		await refresh('cupboard:folder');
	}
	async function remove(reason: string) {
		await cupboard.removePlace({ place: place.id, reason });
		const { id, name } = place;
		toast(`${name} is removed.`, {
			takeBack: () => void restorePlace(id, () => goto(`/${code}/place/${id}`))
		});
		await goto(parent ? `/${code}/place/${parent}` : `/${code}/shelves`);
	}
	const tree = $derived(readFolderList(name));
	const titles = { make: 'New folders', rename: 'Rename', move: 'Move' };
</script>

<Menu
	label="New"
	groups={[
		[{ word: 'New folders…', hint: 'one, or a whole tree', act: () => ask('make') }],
		LIVE_KINDS.filter((one) => ON_SCREEN[one].anew).map((one) => ({
			word: `New ${one}`,
			hint: 'to edit together',
			act: () => begin(one)
		}))
	]}
/>
<Menu
	label="Folder"
	groups={[
		[
			{ word: 'Rename…', act: () => ask('rename'), why: can.renameFolder.why },
			place.kind === 'folder' && { word: 'Move…', act: () => ask('move'), why: can.moveFolder.why }
		],
		can.makePass.may && [
			{ word: 'Make a pass…', hint: 'a link for people without an account', act: () => (passing = true) },
			{
				word: 'Open a hatch…',
				hint: 'a link by which outsiders put files in, seeing nothing',
				act: () => (hatching = true),
				why: can.makeHatch.why
			}
		],
		[
			can.thawPlace.may && { word: 'Thaw', act: freeze },
			!can.thawPlace.may &&
				can.freezePlace.may && { word: 'Freeze…', hint: 'nobody below Manage changes anything', act: freeze },
			{ word: place.atHand ? 'Keep at hand no longer' : 'Keep at hand', key: 'B', act: bookmark }
		],
		[{ word: 'Remove…', act: () => (removing = true), why: can.removePlace.why }]
	]}
/>

<Dialog
	bind:open={() => asking !== null, (open) => !open && (asking = null)}
	title="{titles[asking ?? 'make']}{asking === 'make' ? ` in ${place.name}` : ` ${place.name}`}"
>
	<Form
		{act}
		button={asking !== 'make'
			? titles[asking ?? 'make']
			: (tree.ways?.length ?? 0) > 1
				? `Make ${tree.ways!.length} folders`
				: 'Make folder'}
		disabled={asking === 'make' && !tree.ways?.length}
		cancel={() => (asking = null)}
	>
		{#if asking === 'move'}
			<p class="text-ink-2">
				{plural(documents, 'document')} go along. Who reaches them follows the new place.
			</p>
			<PlacePicker label="To" {project} bind:place={to} without={[place.id]} />
		{:else if asking === 'make'}
			<Field
				label="Name, or several, one a line"
				name="ways"
				bind:value={name}
				lines={6}
				maxlength={20_000}
				hint="A folder in a folder is indented, or written Drawings / Details."
			/>
			{#if tree.fault}<p class="text-fault">{tree.fault}</p>{/if}
		{:else}<Field label="Name" name="name" bind:value={name} required maxlength={180} />{/if}
	</Form>
</Dialog>
{#if beginning}<BeginLiveDialog bind:open={beginning} {kind} {place} {code} />{/if}
{#if can.makePass.may}
	{#if passing}{#await later( () => import('../passes/PassDialog.svelte'), () => (passing = false) ) then PassDialog}<PassDialog
				bind:open={passing}
				{place}
				{outsideLevel}
				done={() => refresh('cupboard:folder')}
			/>{/await}{/if}
	{#if hatching}{#await later( () => import('../hatches/HatchDialog.svelte'), () => (hatching = false) ) then HatchDialog}<HatchDialog
				bind:open={hatching}
				{place}
				done={() => {}}
			/>{/await}{/if}
{/if}
{#if removing}<ReasonDialog
		bind:open={removing}
		title="Remove {place.name}?"
		consequence="{plural(documents, 'document')} go out of sight with it{inHand
			? `; ${inHand} are in hand`
			: ''}. They can be restored until {projectDayWords(retentionDays)}."
		button="Remove"
		dangerous
		act={remove}
	/>{/if}
