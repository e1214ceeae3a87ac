<script lang="ts">
	import { cupboard } from '../../client/cupboard';
	import { sentenceOf } from '../platform/api';
	import Dialog from '../kit/Dialog.svelte';
	import { plural } from '../platform/words';

	/** Makes or changes a group, or the company of people outside: its name and who is in it. */
	let {
		group = $bindable(null),
		project,
		members,
		done
	}: {
		group: { id: string | null; name: string; people: string[]; company?: boolean } | null;
		project: string;
		members: { id: string; name: string; outside: boolean }[];
		done: () => Promise<void>;
	} = $props();

	let fault = $state('');
	let filter = $state('');
	const people = $derived(
		[...new Map(members.map((m) => [m.id, m])).values()].filter(
			(m) => (!group?.company || m.outside) && m.name.toLowerCase().includes(filter.toLowerCase())
		)
	);
	async function save(event: SubmitEvent) {
		event.preventDefault();
		fault = '';
		try {
			const { id, name, people: list } = group!;
			if (id) await cupboard.changeGroup({ project, group: id, name, people: list });
			else await cupboard.makeGroup({ project, name, people: list });
			group = null;
			await done();
		} catch (error) {
			fault = sentenceOf(error);
		}
	}
	async function end() {
		fault = '';
		try {
			await cupboard.endGroup({ project, group: group!.id! });
			group = null;
			await done();
		} catch (error) {
			fault = sentenceOf(error);
		}
	}
</script>

<Dialog
	bind:open={() => group !== null, (open) => !open && (group = null)}
	title={group?.id ? `Change ${group.name}` : 'New group'}
>
	{#if group}
		<form onsubmit={save} class="space-y-3">
			<label class="block"
				><span class="label">Name</span><input
					class="field"
					bind:value={group.name}
					required
					maxlength="180"
				/></label
			>
			<fieldset>
				<legend class="label">{plural(group.people.length, 'person', 'people')} in it</legend>
				<input
					class="field mb-1"
					type="search"
					placeholder="Filter"
					aria-label="Filter people"
					bind:value={filter}
				/>
				<div class="max-h-[240px] overflow-auto border border-rule p-1.5">
					{#each people as m (m.id)}<label class="flex items-center gap-2 py-0.5"
							><input
								type="checkbox"
								class="accent-act"
								value={m.id}
								bind:group={group.people}
							/>{m.name}{m.outside ? ' (outside)' : ''}</label
						>{/each}
				</div>
			</fieldset>
			{#if fault}<p role="alert" class="text-fault">{fault}</p>{/if}
			<div class="flex justify-end gap-2">
				{#if group.id && !group.company}<button
						type="button"
						class="button button-fault mr-auto"
						onclick={end}>End group, with what it was given</button
					>{/if}
				<button type="button" class="button" onclick={() => (group = null)}>Cancel</button><button
					class="button button-act">{group.id ? 'Change' : 'Make group'}</button
				>
			</div>
		</form>
	{/if}
</Dialog>
