<script lang="ts">
	import Field from '$lib/ui/kit/Field.svelte';
	import Form from '$lib/ui/kit/Form.svelte';
	import { refresh, refreshAll } from '$lib/ui/platform/refresh';
	import { onMount } from 'svelte';
	import { toast } from '$lib/ui/kit/toast';
	import { cupboard } from '$lib/client/cupboard';
	import Avatar from '$lib/ui/kit/Avatar.svelte';
	import AddPeople from '$lib/ui/people/AddPeople.svelte';
	import GroupDialog from '$lib/ui/people/GroupDialog.svelte';
	import StandIns from '$lib/ui/people/StandIns.svelte';
	import PersonDialog from '$lib/ui/people/PersonDialog.svelte';
	import { onTouched } from '$lib/ui/platform/live.svelte';
	import { plural } from '$lib/ui/platform/words';

	let { data } = $props();
	const controller = $derived(data.frame.me.controller);
	const loose = $derived(data.members.filter((m) => !m.departmentId && !m.outside));
	const companies = $derived(data.groups.filter((g) => g.company));
	const groups = $derived(data.groups.filter((g) => !g.company));
	const byId = $derived(new Map(data.members.map((m) => [m.id, m])));
	let moving = $state<string | null>(null);
	let grouping = $state<{ id: string | null; name: string; people: string[] } | null>(null);
	onMount(() => onTouched(['people', 'project'], () => refresh('cupboard:people')));

	const at = $derived({ project: data.frame.project.id });
	/** Who gets what is released, and which department is being made. */
	let recipient = $state({ name: '', company: '', email: '' });
	let department = $state({ code: '', name: '' });
	async function addRecipient() {
		await cupboard.addRecipient({ ...at, ...recipient });
		recipient = { name: '', company: '', email: '' };
		await added('On the distribution list.');
	}
	async function makeDepartment() {
		await cupboard.makeDepartment({ ...at, ...department });
		department = { code: '', name: '' };
		await added('The department is made; give it a shelf next.');
	}
	async function added(sentence: string) {
		toast(sentence);
		await refreshAll();
	}
</script>

{#snippet person(m: (typeof data.members)[number])}
	<li class="flex items-center gap-2.5 border-b border-rule-2 py-1">
		<Avatar name={m.name} outside={m.outside} />
		<span class="min-w-0 flex-1 truncate"
			><b class="font-semibold">{m.name}</b><span class="ml-2 text-[12px] text-ink-2">{m.email}</span></span
		>
		{#if m.lead}<span class="tag bg-rule-2">lead</span>{/if}
		{#if m.outside}<span class="tag border border-dashed border-ink-2">outside</span>{/if}
		{#if !m.cameIn}<span class="tag bg-lock-soft text-lock">not come in yet</span>{/if}
		{#if m.blockedAt}<span class="tag bg-fault-soft text-fault">kept out</span>{/if}
		{#if m.controller}<span class="tag bg-done-soft text-done">controller</span>{/if}
		{#if controller}<button class="link text-[12px] text-ink-2" onclick={() => (moving = m.id)}>Change</button
			>{/if}
	</li>
{/snippet}

<svelte:head><title>People · {data.frame.project.name}</title></svelte:head>
<div
	class="grid h-full grid-cols-[minmax(0,1fr)] {controller
		? 'lg:grid-cols-[minmax(0,1fr)_340px]'
		: ''} overflow-auto lg:overflow-hidden"
>
	<div class="px-5 py-3 lg:overflow-auto">
		<div class="mb-3 flex items-baseline gap-3">
			<h1 class="text-[21px]">People</h1>
			<p class="text-ink-2">
				{plural(new Set(data.members.map((m) => m.id)).size, 'person', 'people')} in {plural(
					data.departments.length,
					'department'
				)}
			</p>
		</div>
		<div class="grid grid-cols-[minmax(0,1fr)] gap-x-8 gap-y-4 md:grid-cols-2">
			{#each data.departments as department (department.id)}
				{@const members = data.members
					.filter((m) => m.departmentId === department.id)
					.sort((a, b) => Number(b.lead) - Number(a.lead))}
				<section>
					<h2 class="flex items-center gap-2 border-b border-ink pb-1 text-[14px]">
						<span class="rounded-sm bg-frame px-1.5 font-mono text-[11px] text-on-frame"
							>{department.code}</span
						>{department.name}<span class="ml-auto font-mono text-[12px] font-normal text-ink-2"
							>{members.length}</span
						>
					</h2>
					<ul>
						{#each members as m (m.id)}{@render person(m)}{:else}<li class="py-2 text-ink-2">
								Nobody yet.
							</li>{/each}
					</ul>
				</section>
			{:else}<p class="text-ink-2">
					No departments yet{controller ? '; make the first one on the right' : ''}.
				</p>{/each}
			{#if loose.length}<section>
					<h2 class="border-b border-ink pb-1 text-[14px]">Without a department</h2>
					<ul>
						{#each loose as m (m.id)}{@render person(m)}{/each}
					</ul>
				</section>{/if}
			{#each companies as company (company.id)}
				<section>
					<h2 class="flex items-center gap-2 border-b border-dashed border-ink pb-1 text-[14px]">
						{company.name}<span class="text-[12px] font-normal text-ink-2">outside</span><span
							class="ml-auto font-mono text-[12px] font-normal text-ink-2">{company.people.length}</span
						>
						{#if controller}<button
								class="link text-[12px] font-normal text-ink-2"
								onclick={() => (grouping = { ...company })}>Change</button
							>{/if}
					</h2>
					<ul>
						{#each company.people as id (id)}{#if byId.get(id)}{@render person(byId.get(id)!)}{/if}{/each}
					</ul>
				</section>
			{/each}
			{#if controller || groups.length}
				<section>
					<h2 class="flex items-center gap-2 border-b border-ink pb-1 text-[14px]">
						Groups{#if controller}<button
								class="link ml-auto text-[12px] font-normal text-ink-2"
								onclick={() => (grouping = { id: null, name: '', people: [] })}>New group</button
							>{/if}
					</h2>
					<ul>
						{#each groups as g (g.id)}<li class="flex items-baseline gap-2 border-b border-rule-2 py-1">
								<b class="font-semibold">{g.name}</b><span
									class="min-w-0 flex-1 truncate text-[12px] text-ink-2"
									>{g.people.map((id) => byId.get(id)?.name ?? '').join(', ') || 'nobody yet'}</span
								><span class="font-mono text-[12px] text-ink-2">{g.people.length}</span>
								{#if controller}<button
										class="link text-[12px] text-ink-2"
										onclick={() => (grouping = { ...g })}>Change</button
									>{/if}
							</li>{:else}<li class="py-2 text-ink-2">
								No groups yet. A group is a named list of people across departments.
							</li>{/each}
					</ul>
				</section>
			{/if}
			{#if !data.frame.me.outside}<StandIns
					rows={data.standIns}
					project={data.frame.project.id}
					members={data.members}
					me={data.frame.me.id}
					{controller}
				/>{/if}
			{#if controller && data.recipients.length}
				<section>
					<h2 class="border-b border-ink pb-1 text-[14px]">Distribution list, outside</h2>
					<ul>
						{#each data.recipients as r (r.id)}<li
								class="flex items-center gap-2.5 border-b border-rule-2 py-1"
							>
								<Avatar name={r.name} outside /><span class="truncate"
									><b class="font-semibold">{r.name}</b>, {r.company}<span class="ml-2 text-[12px] text-ink-2"
										>{r.email}</span
									></span
								>
							</li>{/each}
					</ul>
				</section>
			{/if}
		</div>
	</div>
	{#if controller}
		<aside class="space-y-6 border-l border-rule bg-sheet px-5 py-4 lg:overflow-auto">
			<AddPeople
				project={data.frame.project.id}
				departments={data.departments}
				members={data.members}
				ownDomains={data.frame.project.ownDomains}
				done={refreshAll}
			/>
			<div class="border-t border-rule pt-4">
				<Form act={addRecipient} button="Add recipient" quiet onPage>
					<h2 class="text-[15px]">Add to the distribution list</h2>
					<Field label="Name" name="name" bind:value={recipient.name} required />
					<Field label="Company" name="company" bind:value={recipient.company} required />
					<Field label="Mail address" name="email" type="email" bind:value={recipient.email} required />
				</Form>
			</div>
			<div class="border-t border-rule pt-4">
				<Form act={makeDepartment} button="Make department" quiet onPage>
					<h2 class="text-[15px]">Make a department</h2>
					<div class="grid grid-cols-[5rem_1fr] gap-2">
						<Field
							label="Code"
							name="code"
							bind:value={() => department.code, (typed) => (department.code = typed.toUpperCase())}
							minlength={2}
							maxlength={2}
							required
							mono
						/>
						<Field label="Name" name="name" bind:value={department.name} required />
					</div>
				</Form>
			</div>
		</aside>
	{/if}
</div>
{#if controller}
	{#if moving}<PersonDialog
			bind:person={moving}
			project={data.frame.project.id}
			departments={data.departments}
			members={data.members}
			me={data.frame.me.id}
			done={refreshAll}
		/>{/if}
	{#if grouping}<GroupDialog
			bind:group={grouping}
			project={data.frame.project.id}
			members={data.members}
			done={refreshAll}
		/>{/if}
{/if}
