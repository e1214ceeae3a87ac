<script lang="ts">
	import { later } from '../kit/later';
	import Dialog from '../kit/Dialog.svelte';
	import Field from '../kit/Field.svelte';
	import Form from '../kit/Form.svelte';
	import Menu from '../kit/Menu.svelte';
	import PlacePicker from '../kit/PlacePicker.svelte';
	import ReasonDialog from '../kit/ReasonDialog.svelte';
	import ShareDialog from '../access/ShareDialog.svelte';
	import { AT_ONCE, copyMany, downloadZip, moveMany, removeMany, tagMany } from './selection';
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
	let to = $state<{ id: string; name: string } | null>(null);
	let adds = $state('');
	let takes = $state<string[]>([]);
	const chosen = $derived({ documents, folders });
	const what = $derived(
		[
			...(documents.length ? [plural(documents.length, 'document')] : []),
			...(folders.length ? [plural(folders.length, 'folder')] : [])
		].join(' and ')
	);

	function ask(next: typeof asking) {
		to = null;
		adds = '';
		takes = [];
		asking = next;
	}
	async function act() {
		if (asking === 'copy') await copyMany(project, chosen, to!.id, changed);
		else if (asking === 'move') await moveMany(project, chosen, to!, changed);
		else {
			const tag = adds
				.split(',')
				.map((t) => t.trim())
				.filter(Boolean);
			await tagMany(project, chosen, { tag, untag: takes }, changed);
		}
		asking = null;
	}
	const TITLE = { move: 'Move', copy: 'Copy', tag: 'Tag' };
</script>

<Menu
	label="{(documents.length + folders.length).toLocaleString('en')} ticked"
	groups={[
		[
			mayWork && !folders.length && { word: 'Lock…', act: () => (locking = true) },
			mayWork && { word: 'Move…', act: () => ask('move') },
			mayWork && { word: 'Tag…', act: () => ask('tag') },
			{ word: 'Copy…', act: () => ask('copy') },
			{ word: 'Download as zip', act: () => downloadZip(code, chosen) }
		],
		[
			mayManage && { word: 'Share…', act: () => (sharing = true) },
			putInRelease && documents.length && { word: 'Put in release…', act: putInRelease }
		],
		[mayWork && { word: 'Remove…', act: () => (removing = true) }]
	]}
/>

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
			: ''}: all of them, or none{documents.length + folders.length > AT_ONCE
			? `, of each ${AT_ONCE.toLocaleString('en')}`
			: ''}. Each can be restored until {until}."
		button="Remove {what}"
		dangerous
		act={(reason) => removeMany(project, chosen, reason, changed)}
	/>{/if}
{#if locking}{#await later( () => import('../locks/LockDialog.svelte'), () => (locking = false) ) then LockDialog}<LockDialog
			bind:open={locking}
			{documents}
			{project}
			name={what}
			done={() => void changed()}
		/>{/await}{/if}
<Dialog
	bind:open={() => asking !== null, (open) => !open && (asking = null)}
	title="{TITLE[asking ?? 'move']} {what}"
>
	<Form {act} button="{TITLE[asking ?? 'move']} {what}" cancel={() => (asking = null)}>
		{#if asking === 'tag'}
			<Field
				label="Tags to give, with commas between"
				name="tag"
				bind:value={adds}
				placeholder="linkspan, tender pack"
			/>
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
			<PlacePicker label="To" {project} bind:place={to} without={asking === 'move' ? folders : []} />
		{/if}
	</Form>
</Dialog>
