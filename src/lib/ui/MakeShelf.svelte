<script lang="ts">
	import { invalidateAll } from '$app/navigation';
	import { LEVELS, levelLabel } from '../core/access/levels';
	import { call, sentenceOf } from './api';
	import Dialog from './Dialog.svelte';

	/** Makes a shelf for a department; other departments reach it only where a level is chosen. */
	let {
		open = $bindable(false),
		project,
		departments
	}: { open: boolean; project: string; departments: { id: string; code: string; name: string }[] } = $props();
	let name = $state('');
	let department = $state('');
	let also = $state<Record<string, string>>({});
	let fault = $state('');

	async function make(event: SubmitEvent) {
		event.preventDefault();
		fault = '';
		const others = Object.entries(also)
			.filter(([id, level]) => level && id !== department)
			.map(([id, level]) => ({ department: id, level }));
		try {
			await call('POST', `/projects/${project}/shelves`, {
				name,
				department: department || null,
				also: others
			});
			name = '';
			also = {};
			open = false;
			await invalidateAll();
		} catch (error) {
			fault = sentenceOf(error);
		}
	}
</script>

<Dialog bind:open title="New shelf">
	<form onsubmit={make} class="space-y-3">
		<label class="block"
			><span class="label">Owned by</span>
			<select
				class="field"
				bind:value={department}
				onchange={() => (name ||= departments.find((d) => d.id === department)?.name ?? '')}
			>
				<option value="">The project itself (controllers only, and whom you let in below)</option>
				{#each departments as d (d.id)}<option value={d.id}>{d.code} {d.name}: members Work, leads Run</option
					>{/each}
			</select>
		</label>
		<label class="block"
			><span class="label">Name</span><input
				class="field"
				bind:value={name}
				required
				maxlength="180"
			/></label
		>
		<fieldset>
			<legend class="label">Other departments. Nobody else sees the shelf unless you say so.</legend>
			{#each departments.filter((d) => d.id !== department) as d (d.id)}
				<label class="flex items-center justify-between border-b border-rule-2 py-1"
					><span>{d.code} {d.name}</span>
					<select class="border border-rule bg-sheet px-1 py-0.5" bind:value={also[d.id]}
						><option value="">no access</option
						>{#each LEVELS.filter((l) => l !== 'drop') as level (level)}<option value={level}
								>{levelLabel(level)}</option
							>{/each}</select
					>
				</label>
			{/each}
		</fieldset>
		{#if fault}<p role="alert" class="text-fault">{fault}</p>{/if}
		<div class="flex justify-end"><button class="button button-act">Make the shelf</button></div>
	</form>
</Dialog>
