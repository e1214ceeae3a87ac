<script lang="ts">
	import Table from '../kit/Table.svelte';
	import Select from '../kit/Select.svelte';
	import { untrack } from 'svelte';
	import { toast } from '../kit/toast';
	import type { EffectRow } from '../../core/access/rows';
	import { cupboard } from '../../client/cupboard';
	import { sentenceOf } from '../platform/api';
	import Dialog from '../kit/Dialog.svelte';
	import Field from '../kit/Field.svelte';
	import Form from '../kit/Form.svelte';
	import { effectText } from '../access/effect-text';
	import { plural } from '../platform/words';

	interface Department {
		id: string;
		code: string;
		name: string;
	}
	/** Moves a person between departments or lets them leave; what that means stands there before it is done. */
	let {
		person = $bindable(null),
		project,
		departments,
		members,
		me,
		done
	}: {
		person: string | null;
		project: string;
		departments: Department[];
		members: {
			id: string;
			name: string;
			email: string;
			controller: boolean;
			outside: boolean;
			twoStep: boolean;
			departmentId: string | null;
			lead: boolean | null;
			cameIn: boolean;
			blockedAt: Date | string | null;
			blockedReason: string | null;
		}[];
		me: string;
		done: () => Promise<void>;
	} = $props();

	const rows = $derived(members.filter((m) => m.id === person));
	const who = $derived(rows[0]);
	// As it stood when the dialog opened; what others change meanwhile does not undo what is chosen here.
	let chosen = $state<Record<string, 'out' | 'in' | 'lead'>>(
		untrack(() =>
			Object.fromEntries(
				departments.map((d) => {
					const row = rows.find((r) => r.departmentId === d.id);
					return [d.id, row ? (row.lead ? 'lead' : 'in') : 'out'];
				})
			)
		)
	);
	let controller = $state(untrack(() => who?.controller ?? false));
	let leaving = $state(false);
	let reason = $state('');
	let meaning = $state<(EffectRow & { locks: number }) | null>(null);
	let unknown = $state('');
	let fault = $state('');
	let busy = $state(false);

	const wanted = $derived(departments.filter((d) => chosen[d.id] && chosen[d.id] !== 'out'));
	$effect(() => {
		if (!person) return;
		// A late answer to what was chosen before says nothing of what is chosen now.
		let current = true;
		cupboard
			.effectOfDepartments({
				project,
				person,
				departments: wanted.map((d) => d.id + (chosen[d.id] === 'lead' ? '*' : '')).join(','),
				controller,
				leaving
			})
			.then((answer) => current && (meaning = answer))
			.catch((error: unknown) => current && ((meaning = null), (unknown = sentenceOf(error))));
		return () => (current = false);
	});

	/** What is done about somebody at once, beside the form. */
	async function act(doing: (at: { project: string; person: string }) => Promise<unknown>, said: string) {
		fault = '';
		busy = true;
		try {
			await doing({ project, person: person! });
			toast(said);
			person = null;
			await done();
		} catch (error) {
			fault = sentenceOf(error);
		}
		busy = false;
	}
	let blocking = $state('');

	async function change() {
		if (leaving) {
			const gone = await cupboard.leavePerson({ project, person: person!, reason });
			toast(
				`${who!.name} is deactivated.${gone.locks ? ` ${plural(gone.locks, 'lock')} went to the leads.` : ''} Nothing of theirs disappeared.`
			);
		} else
			await cupboard.setDepartments({
				project,
				person: person!,
				departments: wanted.map((d) => ({ department: d.id, lead: chosen[d.id] === 'lead' })),
				controller
			});
		person = null;
	}
</script>

<Dialog bind:open={() => person !== null, (open) => !open && (person = null)} title={who?.name ?? ''}>
	<Form
		act={change}
		{done}
		button={leaving ? `Deactivate ${who?.name}` : 'Change'}
		dangerous={leaving}
		disabled={busy || (who?.outside && !leaving)}
		cancel={() => (person = null)}
	>
		<p class="text-ink-2">
			{who?.email}{who?.twoStep ? ' · signs in with two steps' : ''}{who?.outside ? ' · outside' : ''}
		</p>
		{#if who && !who.cameIn}
			<div class="flex flex-wrap items-center gap-2 border-l-4 border-lock bg-lock-soft px-3 py-2">
				<span class="flex-1">Was invited and has not come in yet.</span>
				<button
					type="button"
					class="button"
					disabled={busy}
					onclick={() => act(cupboard.inviteAgain, `A new invitation is on its way to ${who.email}.`)}
					>Invite again</button
				>
			</div>
		{/if}
		{#if who?.blockedAt}
			<div class="flex flex-wrap items-center gap-2 border-l-4 border-fault bg-fault-soft px-3 py-2">
				<span class="flex-1">Kept out for the time being: {who.blockedReason}</span>
				<button
					type="button"
					class="button"
					disabled={busy}
					onclick={() => act(cupboard.unblockPerson, `${who.name} is back in, with everything as it was.`)}
					>Let back in</button
				>
			</div>
		{:else if who && person !== me && !leaving}
			<details>
				<summary class="cursor-pointer text-ink-2">Keep out for a time…</summary>
				<div class="mt-1 flex gap-2">
					<input
						class="field"
						aria-label="Reason for keeping out"
						placeholder="Reason"
						bind:value={blocking}
						maxlength="500"
					/>
					<button
						type="button"
						class="button whitespace-nowrap"
						disabled={busy || !blocking.trim()}
						onclick={() =>
							act(
								(at) => cupboard.blockPerson({ ...at, reason: blocking }),
								`${who.name} is kept out until you let them back in.`
							)}>Keep out</button
					>
				</div>
				<p class="mt-1 text-[12px] text-ink-2">
					They are signed out and see nothing of the project; what was given to them stays and comes back.
				</p>
			</details>
		{/if}
		{#if who?.outside && !leaving}
			<p class="flex flex-wrap items-center gap-2">
				<span class="flex-1 text-ink-2">From outside: belongs to a company, and to no department.</span>
				<button
					type="button"
					class="button"
					disabled={busy}
					onclick={() =>
						act(cupboard.moveInside, `${who.name} is a colleague now; put them into a department.`)}
					>Make a colleague</button
				>
			</p>
		{/if}
		{#if !leaving && !who?.outside}
			<Table
				label="Departments"
				rows={departments}
				key={(d) => d.id}
				empty="The project has no departments yet."
				columns={[
					{ id: 'department', head: 'Department', cell: department },
					{ id: 'role', head: 'Role', cell: role, right: true }
				]}
			/>
			<label class="flex items-center gap-2"
				><input type="checkbox" class="accent-act" bind:checked={controller} />document controller: Manage
				everywhere</label
			>
		{/if}
		{#if person !== me}<label class="flex items-center gap-2 border-t border-rule pt-3"
				><input type="checkbox" class="accent-act" bind:checked={leaving} />{who?.name} leaves the project</label
			>{/if}
		{#if leaving}<Field label="Reason" name="reason" bind:value={reason} required maxlength={500} />{/if}
		<p class="min-h-10 border-l-4 border-wait bg-wait-soft px-3 py-2" role="status">
			{#if meaning}
				{effectText(meaning)}
				{#if leaving}Sessions and tokens end at once.{meaning.locks
						? ` ${plural(meaning.locks, 'document')} in hand ${meaning.locks === 1 ? 'goes' : 'go'} to the leads.`
						: ''}{who?.outside
						? ''
						: ' What lies on their desk becomes a shelf that document control looks after.'}{/if}
			{:else}{unknown || 'Working out what that means…'}{/if}
		</p>
		{#if fault}<p role="alert" class="text-fault">{fault}</p>{/if}
	</Form>
</Dialog>

{#snippet department(d: Department)}<span class="mr-2 font-mono text-[12px]">{d.code}</span>{d.name}{/snippet}
{#snippet role(d: Department)}<Select
		label="In {d.name}"
		choices={[
			{ value: 'out', label: 'not in it' },
			{ value: 'in', label: 'member' },
			{ value: 'lead', label: 'lead' }
		]}
		bind:value={() => chosen[d.id] ?? 'out', (role) => (chosen[d.id] = role || 'out')}
		class="max-w-[110px]"
	/>{/snippet}
