<script lang="ts">
	import Field from '../kit/Field.svelte';
	import Form from '../kit/Form.svelte';
	import { isKnown, membersOf } from '../kit/person';
	import PersonPicker from '../kit/PersonPicker.svelte';
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
		members: Parameters<typeof membersOf>[0];
		done: () => Promise<void>;
	} = $props();

	const all = $derived(membersOf(members).filter((m) => !group?.company || m.outside));
	const inIt = $derived(all.filter((m) => group?.people.includes(m.id)));
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
				<PersonPicker
					label="Add somebody"
					inline
					placeholder="Add somebody: type a name"
					known={all.filter((m) => !group?.people.includes(m.id))}
					pick={(one) => isKnown(one) && group?.people.push(one.id)}
				/>
				<ul class="mt-1 max-h-[240px] overflow-auto" aria-label="People in it">
					{#each inIt as m (m.id)}<li class="flex items-baseline gap-2 border-b border-rule-2 py-1">
							<span class="min-w-0 flex-1 truncate"
								>{m.name}{m.outside ? ' (outside)' : ''}<span class="ml-2 text-[12px] text-ink-2"
									>{m.email}</span
								></span
							>
							<button
								type="button"
								class="link text-[12px]"
								aria-label="Take {m.name} out of the group"
								onclick={() => (group!.people = group!.people.filter((id) => id !== m.id))}>Delete</button
							>
						</li>{:else}<li class="py-2 text-ink-2">Nobody yet.</li>{/each}
				</ul>
			</fieldset>
		</Form>
	{/if}
</Dialog>
