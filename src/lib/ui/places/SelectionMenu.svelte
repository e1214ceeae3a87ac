<script lang="ts">
	import Select from '../kit/Select.svelte';
	import { DropdownMenu } from 'bits-ui';
	import { cupboard } from '../../client/cupboard';
	import { attempt, sentenceOf } from '../platform/api';
	import Dialog from '../kit/Dialog.svelte';
	import LockDialog from '../locks/LockDialog.svelte';
	import ReasonDialog from '../kit/ReasonDialog.svelte';
	import ShareDialog from '../access/ShareDialog.svelte';
	import { copyMany, downloadZip, moveMany, removeMany, tagMany } from './selection';
	import { plural } from '../platform/words';
	import { projectDayWords } from '../platform/project-day';

	/** What can be done with the ticked documents and folders together. */
	let {
		documents,
		folders,
		project,
		code,
		mayWork,
		mayManage,
		tags,
		retentionDays,
		changed,
		putInRelease
	}: {
		documents: string[];
		folders: string[];
		project: string;
		code: string;
		mayWork: boolean;
		mayManage: boolean;
		/** Tags that some of them carry, for taking away. */
		tags: string[];
		retentionDays: number;
		changed: () => unknown;
		/** Null when one may not build releases. */
		putInRelease: (() => void) | null;
	} = $props();

	let asking = $state<'move' | 'copy' | 'tag' | null>(null);
	let locking = $state(false);
	let removing = $state(false);
	let sharing = $state(false);
	const until = $derived(projectDayWords(retentionDays));
	let targets = $state<{ id: string; way: string }[]>([]);
	let to = $state('');
	let adds = $state('');
	let takes = $state<string[]>([]);
	let fault = $state('');
	const chosen = $derived({ documents, folders });
	const what = $derived(
		[
			...(documents.length ? [plural(documents.length, 'document')] : []),
			...(folders.length ? [plural(folders.length, 'folder')] : [])
		].join(' and ')
	);

	async function ask(next: typeof asking) {
		fault = '';
		to = '';
		adds = '';
		takes = [];
		asking = next;
		if (next === 'tag') return;
		const answer = await attempt(() => cupboard.folders({ project }));
		targets = answer?.folders ?? [];
	}
	async function submit(event: SubmitEvent) {
		event.preventDefault();
		fault = '';
		try {
			if (asking === 'copy') await copyMany(project, chosen, to, changed);
			else if (asking === 'move') {
				const name = targets.find((t) => t.id === to)!.way;
				await moveMany(project, chosen, { id: to, name }, changed);
			} else {
				const tag = adds
					.split(',')
					.map((t) => t.trim())
					.filter(Boolean);
				await tagMany(project, chosen, { tag, untag: takes }, changed);
			}
			asking = null;
		} catch (error) {
			fault = sentenceOf(error);
		}
	}
	const item = 'block w-full cursor-pointer px-3 py-1.5 text-left data-highlighted:bg-act-soft';
	const TITLE = { move: 'Move', copy: 'Copy', tag: 'Tag' };
</script>

<DropdownMenu.Root>
	<DropdownMenu.Trigger class="button">{documents.length + folders.length} ticked ▾</DropdownMenu.Trigger>
	<DropdownMenu.Portal>
		<DropdownMenu.Content
			align="end"
			sideOffset={4}
			class="z-50 min-w-[190px] border border-ink bg-sheet py-1 shadow-lg"
		>
			{#if mayWork}
				{#if documents.length && !folders.length}<DropdownMenu.Item
						class={item}
						onSelect={() => (locking = true)}>Lock…</DropdownMenu.Item
					>{/if}
				<DropdownMenu.Item class={item} onSelect={() => ask('move')}>Move…</DropdownMenu.Item>
				<DropdownMenu.Item class={item} onSelect={() => ask('tag')}>Tag…</DropdownMenu.Item>
			{/if}
			<DropdownMenu.Item class={item} onSelect={() => ask('copy')}>Copy…</DropdownMenu.Item>
			<DropdownMenu.Item class={item} onSelect={() => downloadZip(code, chosen)}
				>Download as zip</DropdownMenu.Item
			>
			{#if mayManage}<DropdownMenu.Item class={item} onSelect={() => (sharing = true)}
					>Share…</DropdownMenu.Item
				>{/if}
			{#if putInRelease && documents.length}<DropdownMenu.Item class={item} onSelect={putInRelease}
					>Put in release…</DropdownMenu.Item
				>{/if}
			{#if mayWork}<DropdownMenu.Item class={item} onSelect={() => (removing = true)}
					>Remove…</DropdownMenu.Item
				>{/if}
		</DropdownMenu.Content>
	</DropdownMenu.Portal>
</DropdownMenu.Root>

{#if sharing}<ShareDialog
		bind:open={sharing}
		places={[...documents, ...folders]}
		documents={documents.length > 0}
		{what}
		done={changed}
	/>{/if}
{#if removing}<ReasonDialog
		bind:open={removing}
		title="Remove {what}?"
		consequence="They go out of sight for everybody{folders.length
			? ', with everything in them'
			: ''}: all of them, or none. Each can be restored until {until}."
		button="Remove {what}"
		dangerous
		act={(reason) => removeMany(project, chosen, reason, changed)}
	/>{/if}
{#if locking}<LockDialog
		bind:open={locking}
		{documents}
		{project}
		name={what}
		done={() => void changed()}
	/>{/if}
<Dialog
	bind:open={() => asking !== null, (open) => !open && (asking = null)}
	title="{TITLE[asking ?? 'move']} {what}"
>
	<form onsubmit={submit} class="space-y-3">
		{#if asking === 'tag'}
			<label class="block"
				><span class="label">Tags to give, with commas between</span><input
					class="field"
					bind:value={adds}
					placeholder="linkspan, tender pack"
				/></label
			>
			{#if tags.length}<fieldset>
					<legend class="label">Tags to take away</legend>
					<span class="flex flex-wrap gap-x-4 gap-y-1"
						>{#each tags as tag (tag)}<label class="flex items-center gap-1.5"
								><input type="checkbox" class="accent-act" value={tag} bind:group={takes} />{tag}</label
							>{/each}</span
					>
				</fieldset>{/if}
		{:else}
			<p class="text-ink-2">
				{asking === 'copy'
					? 'Each copy is a new document with the newest content and the next free number; folders keep their structure.'
					: 'Who reaches them follows the new place; what was given to one of them alone stays.'}
			</p>
			<label class="block"
				><span class="label">To</span><Select
					choices={targets.map((t) => ({ value: t.id, label: t.way }))}
					bind:value={to}
					placeholder="choose a place"
					required
				/></label
			>
		{/if}
		{#if fault}<p role="alert" class="text-fault">{fault}</p>{/if}
		<div class="flex justify-end gap-2">
			<button type="button" class="button" onclick={() => (asking = null)}>Cancel</button><button
				class="button button-act">{TITLE[asking ?? 'move']} {what}</button
			>
		</div>
	</form>
</Dialog>
