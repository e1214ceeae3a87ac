<script lang="ts">
	import { onMount, type ComponentProps } from 'svelte';
	import { SvelteSet } from 'svelte/reactivity';
	import { toast } from '$lib/ui/kit/toast';
	import { releaseNumber } from '$lib/core/releases';
	import { cupboard } from '$lib/client/cupboard';
	import ConfirmDialog from '$lib/ui/kit/ConfirmDialog.svelte';
	import PassAddress from '$lib/ui/passes/PassAddress.svelte';
	import PassChange from '$lib/ui/passes/PassChange.svelte';
	import Table from '$lib/ui/kit/Table.svelte';
	import { onTouched } from '$lib/ui/platform/live.svelte';
	import { refresh } from '$lib/ui/platform/refresh';
	import { dayText, plural, whenText } from '$lib/ui/platform/words';

	let { data } = $props();
	const base = $derived(`/${data.frame.project.code.toLowerCase()}`);
	const selection = new SvelteSet<string>();
	let all = $state(false);
	let asking = $state<{ title: string; text: string; button: string; act: () => Promise<unknown> } | null>(
		null
	);
	let looking = $state<ComponentProps<typeof PassAddress>['pass']>(null);
	let changing = $state<ComponentProps<typeof PassChange>['pass']>(null);
	const again = () => refresh('cupboard:passes');
	onMount(() => onTouched(['passes', 'arrivals', 'places', 'access'], again));
	const passes = $derived(data.passes.filter((p) => all || p.state === 'open'));
	type Pass = (typeof data.passes)[number];

	const WHO = { anyone: 'anyone holding it', accounts: 'people with an account', named: 'named people' };
	const LOOK: Record<string, string> = {
		open: 'bg-done-soft text-done',
		withdrawn: 'bg-rule-2',
		ended: 'bg-rule-2',
		'used-up': 'bg-rule-2'
	};
	const nameOf = (p: Pass) =>
		p.release
			? `Release ${releaseNumber(p.release)}`
			: `${p.number ? `${p.number} ` : ''}${p.placeName ?? ''}`;
	const wayTo = (p: Pass) =>
		p.release
			? `${base}/releases/${p.release}`
			: p.placeKind === 'document'
				? `${base}/document/${p.place}`
				: `${base}/place/${p.place}`;

	function withdraw(rows: Pass[]) {
		const ids = rows.map((r) => r.id);
		asking = {
			title: `Withdraw ${plural(ids.length, 'pass', 'passes')}?`,
			text: `${rows
				.slice(0, 3)
				.map((p) => `${nameOf(p)} for ${p.holder}`)
				.join(
					'; '
				)}${rows.length > 3 ? `; and ${rows.length - 3} more` : ''}. They stop working at once, in open tabs too. Copies already downloaded stay where they are.`,
			button: 'Withdraw',
			act: async () => {
				await cupboard.withdrawPasses({ project: data.frame.project.id, passes: ids });
				selection.clear();
				toast(`${plural(ids.length, 'pass', 'passes')} withdrawn.`);
			}
		};
	}
	const usedBy = (p: Pass) =>
		`${WHO[p.audience]}${p.audience === 'named' ? ` (${p.emails.length})` : ''}${p.locked ? ', with a password' : ''}`;
	const allowed = (p: Pass) =>
		`${p.mayDownload ? 'view and download' : 'view'}${p.stamped ? ', stamped' : ''}${p.withMarks ? ', with marks' : ''}${p.embeddable ? ', web pages' : ''}`;
	type Used = { lastUsedAt: Date | string | null; by: string | null; createdAt: Date | string };
	const lastUse = (one: Used) => (one.lastUsedAt ? whenText(one.lastUsedAt) : 'never');
	const lastUsed = (one: Used) => (one.lastUsedAt ? new Date(one.lastUsedAt).getTime() : 0);
	const madeBy = (one: Used) => `${one.by?.split(' ')[0] ?? ''}, ${dayText(one.createdAt)}`;
	const made = (one: Used) => new Date(one.createdAt).getTime();
</script>

<svelte:head><title>Passes · {data.frame.project.name}</title></svelte:head>
<div class="h-full overflow-auto px-5 py-3">
	<div class="mb-1.5 flex flex-wrap items-center gap-3">
		<h1 class="text-[21px]">Passes</h1>
		<p class="text-ink-2">links for people without an account</p>
		<label class="flex items-center gap-1.5 text-ink-2"
			><input type="checkbox" class="accent-act" bind:checked={all} />also those that ended</label
		>
		{#if data.only}<a class="link text-ink-2" href="{base}/passes">all of the project</a>{/if}
		{#if selection.size}<button
				class="button"
				onclick={() => withdraw(data.passes.filter((p) => selection.has(p.id)))}
				>Withdraw {plural(selection.size, 'pass', 'passes')}…</button
			>{/if}
	</div>
	<Table
		label="Passes"
		rows={passes}
		key={(p) => p.id}
		empty="No {all
			? ''
			: 'open '}passes. A pass is a link by which somebody without an account reaches one folder or document, or a release; it is made there, and when a release is issued."
		{selection}
		tickName={(p) => (p.state === 'open' ? `Tick the pass for ${p.holder}` : null)}
		lines
		least="sm:min-w-[860px]"
		columns={[
			{ id: 'leads', head: 'Leads to', cell: leads, by: nameOf, class: 'max-w-[240px]' },
			{ id: 'for', head: 'For', text: (p) => p.holder, by: (p) => p.holder },
			{ id: 'who', head: 'May be used by', text: usedBy, class: 'text-ink-2' },
			{ id: 'to', head: 'To', text: allowed, class: 'text-ink-2' },
			{
				id: 'uses',
				head: 'Uses',
				text: (p) => `${p.uses}${p.maxUses ? ` of ${p.maxUses}` : ''}`,
				by: (p) => p.uses,
				class: 'font-mono text-[12px] whitespace-nowrap'
			},
			{
				id: 'last',
				head: 'Last use',
				text: lastUse,
				by: lastUsed,
				class: 'whitespace-nowrap text-ink-2'
			},
			{ id: 'by', head: 'Made by', text: madeBy, by: made, class: 'text-ink-2' },
			{
				id: 'until',
				head: 'Until',
				text: (p) => dayText(p.endsAt),
				by: (p) => new Date(p.endsAt).getTime(),
				class: 'whitespace-nowrap text-ink-2'
			},
			{ id: 'state', head: 'State', cell: state, by: (p) => p.state },
			{ id: 'do', head: 'Do', quiet: true, cell: passActs, right: true }
		]}
	/>
</div>
{#if asking}<ConfirmDialog bind:asking done={again} />{/if}
<PassAddress bind:pass={looking} projectId={data.frame.project.id} done={again} />
<PassChange
	bind:pass={changing}
	projectId={data.frame.project.id}
	timeZone={data.frame.project.timeZone}
	done={again}
/>

{#snippet leads(p: Pass)}<a class="link block truncate font-semibold" href={wayTo(p)}>{nameOf(p)}</a
	>{#if p.label}<span class="text-[11.5px] text-ink-2">exactly {p.label}</span>{/if}{/snippet}
{#snippet state(one: { state: string })}<span class="tag {LOOK[one.state]}"
		>{one.state.replace('-', ' ')}</span
	>{/snippet}
{#snippet passActs(p: Pass)}{#if p.state === 'open' || p.state === 'used-up'}<span
			class="flex justify-end gap-2"
			>{#if p.can.passAddress.may}<button class="link" onclick={() => (looking = { ...p, name: nameOf(p) })}
					>Address</button
				>{/if}{#if p.can.changePass.may}<button
					class="link"
					onclick={() => (changing = { ...p, name: nameOf(p) })}>Change</button
				>{/if}<button class="link" onclick={() => withdraw([p])}>Withdraw</button></span
		>{/if}{/snippet}
