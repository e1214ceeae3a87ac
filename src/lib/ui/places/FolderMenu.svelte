<script lang="ts">
	import Select from '../kit/Select.svelte';
	import { goto } from '$app/navigation';
	import { refresh } from '../platform/refresh';
	import { DropdownMenu } from 'bits-ui';
	import type { Level } from '../../core/access/levels';
	import { toast } from 'svelte-sonner';
	import { cupboard } from '../../client/cupboard';
	import { attempt, sentenceOf } from '../platform/api';
	import Dialog from '../kit/Dialog.svelte';
	import { LIVE_KINDS, type LiveKind } from '../../core/live/live';
	import BeginLiveDialog from '../live/BeginLiveDialog.svelte';
	import { ON_SCREEN } from '../live/kinds';
	import HatchDialog from '../hatches/HatchDialog.svelte';
	import PassDialog from '../passes/PassDialog.svelte';
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
		mayOrganise,
		mayManage,
		outsideLevel,
		retentionDays
	}: {
		place: { id: string; name: string; kind: string; mine: boolean };
		project: string;
		/** The folder around it, when one may look at that. */
		parent: string | null;
		code: string;
		documents: number;
		inHand: number;
		mayOrganise: boolean;
		mayManage: boolean;
		outsideLevel: Level | null;
		retentionDays: number;
	} = $props();

	let asking = $state<'make' | 'rename' | 'move' | null>(null);
	let removing = $state(false);
	let passing = $state(false);
	let hatching = $state(false);
	let beginning = $state(false);
	let kind = $state<LiveKind>('text');
	let value = $state('');
	let fault = $state('');
	const mayChange = $derived(mayOrganise || place.mine);
	let targets = $state<{ id: string; way: string }[]>([]);

	function begin(what: typeof kind) {
		kind = what;
		beginning = true;
	}
	function ask(what: typeof asking) {
		value = what === 'rename' ? place.name : '';
		fault = '';
		asking = what;
		if (what === 'move') void loadTargets();
	}
	/** Everywhere one may work, but not the folder itself and what lies in it. */
	async function loadTargets() {
		const answer = await attempt(() => cupboard.folders({ project }));
		targets = (answer?.folders ?? []).filter((f) => !f.inside.includes(place.id));
	}
	async function submit(event: SubmitEvent) {
		event.preventDefault();
		fault = '';
		try {
			if (asking === 'make') {
				const made = await cupboard.makeFolder({ parent: place.id, name: value });
				asking = null;
				await goto(`/${code}/place/${made.id}`);
			} else if (asking === 'rename') await cupboard.renameFolder({ folder: place.id, name: value });
			else {
				const to = { id: value, name: targets.find((t) => t.id === value)!.way };
				await moveMany(project, { documents: [], folders: [place.id] }, to, () => refresh('cupboard:folder'));
			}
			asking = null;
			await refresh('cupboard:folder');
		} catch (error) {
			fault = sentenceOf(error);
		}
	}
	async function remove(reason: string) {
		await cupboard.removePlace({ place: place.id, reason });
		const { id, name } = place;
		toast(`${name} is removed.`, {
			duration: 10_000,
			action: { label: 'Take back', onClick: () => void restorePlace(id, () => goto(`/${code}/place/${id}`)) }
		});
		await goto(parent ? `/${code}/place/${parent}` : `/${code}/shelves`);
	}
	const item = 'block w-full cursor-pointer px-3 py-1.5 text-left data-highlighted:bg-act-soft';
	const titles = { make: 'New folder', rename: 'Rename', move: 'Move' };
</script>

<button class="button" onclick={() => ask('make')}>New folder</button>
{#each LIVE_KINDS.filter((one) => ON_SCREEN[one].anew) as one (one)}<button
		class="button"
		onclick={() => begin(one)}>New {one}</button
	>{/each}
{#if mayChange}
	<DropdownMenu.Root>
		<DropdownMenu.Trigger class="button">Folder ▾</DropdownMenu.Trigger>
		<DropdownMenu.Portal>
			<DropdownMenu.Content
				align="end"
				sideOffset={4}
				class="z-50 min-w-[160px] border border-ink bg-sheet py-1 shadow-lg"
			>
				<DropdownMenu.Item class={item} onSelect={() => ask('rename')}>Rename…</DropdownMenu.Item>
				{#if place.kind === 'folder'}<DropdownMenu.Item class={item} onSelect={() => ask('move')}
						>Move…</DropdownMenu.Item
					>{/if}
				{#if mayManage}<DropdownMenu.Item class={item} onSelect={() => (passing = true)}
						>Make a pass…</DropdownMenu.Item
					><DropdownMenu.Item class={item} onSelect={() => (hatching = true)}>Open a hatch…</DropdownMenu.Item
					>{/if}
				<DropdownMenu.Item class={item} onSelect={() => (removing = true)}>Remove…</DropdownMenu.Item>
			</DropdownMenu.Content>
		</DropdownMenu.Portal>
	</DropdownMenu.Root>
{/if}

<Dialog
	bind:open={() => asking !== null, (open) => !open && (asking = null)}
	title="{titles[asking ?? 'make']}{asking === 'make' ? ` in ${place.name}` : ` ${place.name}`}"
>
	<form onsubmit={submit} class="space-y-3">
		{#if asking === 'move'}
			<p class="text-ink-2">
				{plural(documents, 'document')} go along. Who reaches them follows the new place.
			</p>
			<label class="block"
				><span class="label">To</span><Select
					choices={targets.map((t) => ({ value: t.id, label: t.way }))}
					bind:value
					placeholder="choose a place"
					required
				/></label
			>
		{:else}<label class="block"
				><span class="label">Name</span><input class="field" bind:value required maxlength="180" /></label
			>{/if}
		{#if fault}<p role="alert" class="text-fault">{fault}</p>{/if}
		<div class="flex justify-end gap-2">
			<button type="button" class="button" onclick={() => (asking = null)}>Cancel</button><button
				class="button button-act"
				>{titles[asking ?? 'make'] === 'New folder' ? 'Make folder' : titles[asking ?? 'make']}</button
			>
		</div>
	</form>
</Dialog>
{#if beginning}<BeginLiveDialog bind:open={beginning} {kind} {place} {code} />{/if}
{#if mayManage}
	{#if passing}<PassDialog
			bind:open={passing}
			{place}
			{outsideLevel}
			done={() => refresh('cupboard:folder')}
		/>{/if}
	{#if hatching}<HatchDialog bind:open={hatching} {place} done={() => {}} />{/if}
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
