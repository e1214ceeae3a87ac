<script lang="ts">
	import { readNewcomers, ROLES, type NamedDepartment, type Role } from '../../core/people/newcomers';
	import { CallError } from '../../client/call';
	import { cupboard, type AnswerOf } from '../../client/cupboard';
	import ConfirmDialog from '../kit/ConfirmDialog.svelte';
	import Form from '../kit/Form.svelte';
	import { isKnown, type Pickable, type Picked } from '../kit/person';
	import PersonPicker from '../kit/PersonPicker.svelte';
	import Select from '../kit/Select.svelte';
	import { toast } from '../kit/toast';
	import { attempt } from '../platform/api';
	import { plural } from '../platform/words';

	/** Adds people to a project, one or many: typed, pasted, or from the address book, each with a department and a role. */
	let {
		project,
		departments,
		members,
		ownDomains,
		done
	}: {
		project: string;
		departments: readonly NamedDepartment[];
		members: readonly { email: string }[];
		ownDomains: readonly string[];
		done: () => Promise<void>;
	} = $props();

	let text = $state('');
	let department = $state('');
	let role = $state<Role>('member');
	let faultLine = $state(0);
	const here = $derived(new Set(members.map((one) => one.email.toLowerCase())));
	const lines = $derived(
		readNewcomers(text, departments, { department: department || null, role }, here, ownDomains)
	);
	const faults = $derived(lines.filter((line) => line.fault).length);
	const ROLE_LABEL: Record<Role, string> = {
		member: 'member',
		lead: 'lead',
		controller: 'document controller'
	};
	const ROLE_HINT: Record<Role, string> = {
		member: 'Work on the department’s shelves',
		lead: 'Manage on the department’s shelves',
		controller: 'Manage everywhere, apart from desks'
	};

	/** Whom other projects know; asked for when somebody looks for a name first. */
	let book = $state.raw<AnswerOf<'addressBook'> | null>(null);
	async function openBook() {
		if (!book) await attempt(async () => void (book = await cupboard.addressBook({ project })));
	}
	const known = $derived<Pickable[]>([
		...(book?.people ?? [])
			.filter((one) => !here.has(one.email))
			.map(({ name, email, outside, projects, company }) => ({
				kind: 'person' as const,
				id: email,
				name,
				email,
				people: 1,
				outside,
				note: [company, projects.join(' and ')].filter(Boolean).join(', ')
			})),
		...(book?.groups ?? []).map(({ id, name, project: from, people }) => ({
			kind: 'group' as const,
			id,
			name,
			people,
			note: `of ${from}`
		}))
	]);
	let asking = $state<{ title: string; text: string; button: string; act: () => Promise<unknown> } | null>(
		null
	);

	function pick(one: Picked) {
		if (isKnown(one) && one.kind === 'group') return bring(one.id);
		const line = isKnown(one) ? `${one.name} <${one.email}>` : one.email;
		text = text.trim() ? `${text.trimEnd()}\n${line}` : line;
	}
	function bring(group: string) {
		const { name, project: from, people, newHere, company } = book!.groups.find((one) => one.id === group)!;
		const joins =
			newHere === 0
				? 'All of them are here already'
				: `${newHere} of them are not here yet; they join, and get a mail`;
		asking = {
			title: `Bring ${name} over from ${from}`,
			text: `${plural(people, 'person', 'people')}. ${joins}. ${
				company
					? 'They come from outside and see nothing until they are let in somewhere.'
					: 'The group is made here, too; what it may do there does not come along.'
			}`,
			button: company ? 'Bring them over' : 'Bring the group over',
			act: async () => {
				const { joined } = await cupboard.bringGroup({ project, group });
				toast.success(`${name} is here${joined ? `; ${plural(joined, 'person', 'people')} joined` : ''}.`);
				book = null;
			}
		};
	}

	async function add() {
		faultLine = 0;
		const { people } = await cupboard.addPeople({
			project,
			people: lines.map(({ name, email, department, role }) => ({
				name,
				email,
				department: department?.id ?? null,
				lead: role === 'lead',
				controller: role === 'controller'
			}))
		});
		text = '';
		book = null;
		toast.success(
			`${plural(people.length, 'person', 'people')} added. A mail is on its way to each, with a link to come in.`
		);
	}
	function refused(error: unknown) {
		if (error instanceof CallError && typeof error.facts.line === 'number')
			faultLine = lines[error.facts.line - 1]?.line ?? 0;
	}
</script>

<Form
	act={add}
	{done}
	{refused}
	button={lines.length > 1 ? `Add ${lines.length} people` : 'Add person'}
	disabled={!lines.length || faults > 0}
	onPage
>
	<h2 class="text-[15px]">Add people</h2>
	<div onfocusin={openBook}>
		<PersonPicker label="Mail address, or a name from the address book" {known} newcomers {pick} />
	</div>
	<div class="grid grid-cols-2 gap-2">
		<label class="block"
			><span class="label">Into department</span><Select
				name="department"
				choices={[
					{ value: '', label: 'none' },
					...departments.map((one) => ({ value: one.id, label: `${one.code} ${one.name}` }))
				]}
				bind:value={department}
			/></label
		>
		<label class="block"
			><span class="label">As</span><Select
				name="role"
				choices={ROLES.map((value) => ({ value, label: ROLE_LABEL[value], hint: ROLE_HINT[value] }))}
				bind:value={role}
			/></label
		>
	</div>
	<p id="newcomers-hint" class="text-[12px] text-ink-2">
		Or write or paste a list, one a line: a name, a mail address, then the department and “lead”, where they
		differ from what is chosen here.
	</p>
	<label class="block">
		<span class="sr-only">Whom to add</span>
		<textarea
			class="field min-h-[88px] font-mono text-[12px] leading-[20px]"
			aria-describedby="newcomers-hint"
			aria-invalid={faults > 0}
			placeholder={`Ada Ferris, ada@${ownDomains[0] ?? 'company.example'}, ${departments[0]?.code ?? 'MW'}, lead`}
			bind:value={text}
			spellcheck="false"></textarea>
	</label>
	{#if lines.length}
		<ul class="max-h-[190px] space-y-0.5 overflow-auto text-[12px]" aria-label="As read">
			{#each lines as l (l.line)}
				<li class="flex gap-2 {l.fault || l.line === faultLine ? 'text-fault' : ''}">
					<span class="w-4 shrink-0 text-right font-mono text-ink-2">{l.line}</span>
					{#if l.fault}<span>{l.fault}</span>
					{:else}<span class="min-w-0 truncate" title={l.email}
							><b class="font-semibold">{l.name}</b>{l.outside ? ' outside' : ''}</span
						><span class="ml-auto shrink-0"
							>{[l.department?.code, l.role === 'member' ? null : ROLE_LABEL[l.role]]
								.filter(Boolean)
								.join(', ') || (l.outside ? '' : 'no department')}</span
						>{/if}
				</li>
			{/each}
		</ul>
	{/if}
</Form>
{#if asking}<ConfirmDialog bind:asking {done} />{/if}
