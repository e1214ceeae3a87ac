<script lang="ts">
	import Field from '../kit/Field.svelte';
	import Form from '../kit/Form.svelte';
	import { cupboard } from '../../client/cupboard';
	import { attempt } from '../platform/api';
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

	let filter = $state('');
	const people = $derived(
		[...new Map(members.map((m) => [m.id, m])).values()].filter(
			(m) => (!group?.company || m.outside) && m.name.toLowerCase().includes(filter.toLowerCase())
		)
	);
	async function save() {
		const { id, name, people: list } = group!;
		if (id) await cupboard.changeGroup({ project, group: id, name, people: list });
		else await cupboard.makeGroup({ project, name, people: list });
		group = null;
		await done();
	}
	async function end() {
		if (!(await attempt(() => cupboard.endGroup({ project, group: group!.id! })))) return;
		group = null;
		await done();
	}
</script>

<Dialog
	bind:open={() => group !== null, (open) => !open && (group = null)}
	title={group?.id ? `Change ${group.name}` : 'New group'}
>
	{#if group}
		{#snippet more()}{#if group?.id && !group.company}<button
					type="button"
					class="button button-fault order-first mr-auto"
					onclick={end}>End group, with what it was given</button
				>{/if}{/snippet}
		<Form {more} act={save} button={group.id ? 'Change' : 'Make group'} cancel={() => (group = null)}>
			<Field label="Name" name="name" bind:value={group.name} maxlength={180} required />
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
		</Form>
	{/if}
</Dialog>
