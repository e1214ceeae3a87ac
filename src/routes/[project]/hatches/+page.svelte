<script lang="ts">
	import { onMount } from 'svelte';
	import { cupboard } from '$lib/client/cupboard';
	import ConfirmDialog from '$lib/ui/kit/ConfirmDialog.svelte';
	import Table from '$lib/ui/kit/Table.svelte';
	import { onTouched } from '$lib/ui/platform/live.svelte';
	import { refresh } from '$lib/ui/platform/refresh';
	import { dayText, whenText } from '$lib/ui/platform/words';

	/** Where outsiders can put files in. */
	let { data } = $props();
	const base = $derived(`/${data.frame.project.code.toLowerCase()}`);
	let all = $state(false);
	let asking = $state<{ title: string; text: string; button: string; act: () => Promise<unknown> } | null>(
		null
	);
	const again = () => refresh('cupboard:passes');
	onMount(() => onTouched(['passes', 'arrivals', 'places', 'access'], again));
	const hatches = $derived(data.hatches.filter((h) => all || h.state === 'open'));
	type Hatch = (typeof data.hatches)[number];

	const LOOK: Record<string, string> = {
		open: 'bg-done-soft text-done',
		withdrawn: 'bg-rule-2',
		ended: 'bg-rule-2',
		'used-up': 'bg-rule-2'
	};

	function closeHatch(id: string, title: string) {
		asking = {
			title: `Close the hatch “${title}”?`,
			text: 'Nobody can put files in any more. What came in stays under Arrivals.',
			button: 'Close it',
			act: () => cupboard.closeHatches({ project: data.frame.project.id, hatches: [id] })
		};
	}
	type Used = { lastUsedAt: Date | string | null; by: string | null; createdAt: Date | string };
	const lastUse = (one: Used) => (one.lastUsedAt ? whenText(one.lastUsedAt) : 'never');
	const lastUsed = (one: Used) => (one.lastUsedAt ? new Date(one.lastUsedAt).getTime() : 0);
	const madeBy = (one: Used) => `${one.by?.split(' ')[0] ?? ''}, ${dayText(one.createdAt)}`;
	const made = (one: Used) => new Date(one.createdAt).getTime();
</script>

<svelte:head><title>Hatches · {data.frame.project.name}</title></svelte:head>
<div class="h-full overflow-auto px-5 py-3">
	<div class="mb-1.5 flex flex-wrap items-center gap-3">
		<h1 class="text-[21px]">Hatches</h1>
		<p class="text-ink-2">links by which outsiders put files in, and see nothing</p>
		<label class="flex items-center gap-1.5 text-ink-2"
			><input type="checkbox" class="accent-act" bind:checked={all} />also those that ended</label
		>
	</div>
	<Table
		label="Hatches"
		rows={hatches}
		key={(h) => h.id}
		empty="No {all
			? ''
			: 'open '}hatches. A hatch is a link by which outsiders can only put files in; it is made at a folder, and what comes in waits under Arrivals."
		lines
		least="sm:min-w-[720px]"
		columns={[
			{
				id: 'title',
				head: 'Asked for',
				text: (h) => h.title,
				by: (h) => h.title,
				class: 'font-semibold'
			},
			{ id: 'into', head: 'Into', cell: into, by: (h) => h.placeName },
			{
				id: 'kinds',
				head: 'Lets in',
				text: (h) => (h.endings.length ? h.endings.join(', ') : 'every kind'),
				class: 'text-ink-2'
			},
			{
				id: 'came',
				head: 'Came in',
				text: (h) => `${h.files} of ${h.maxFiles}`,
				by: (h) => h.files,
				class: 'font-mono text-[12px]'
			},
			{ id: 'last', head: 'Last use', text: lastUse, by: lastUsed, class: 'text-ink-2' },
			{ id: 'by', head: 'Made by', text: madeBy, by: made, class: 'text-ink-2' },
			{
				id: 'until',
				head: 'Until',
				text: (h) => dayText(h.endsAt),
				by: (h) => new Date(h.endsAt).getTime(),
				class: 'text-ink-2'
			},
			{ id: 'state', head: 'State', cell: state, by: (h) => h.state },
			{ id: 'do', head: 'Do', quiet: true, cell: hatchActs, right: true }
		]}
	/>
</div>
{#if asking}<ConfirmDialog bind:asking done={again} />{/if}

{#snippet state(one: { state: string })}<span class="tag {LOOK[one.state]}"
		>{one.state.replace('-', ' ')}</span
	>{/snippet}
{#snippet into(h: Hatch)}<a class="link" href="{base}/place/{h.place}">{h.placeName}</a>{/snippet}
{#snippet hatchActs(h: Hatch)}{#if h.state === 'open'}<button
			class="link"
			onclick={() => closeHatch(h.id, h.title)}>Close</button
		>{/if}{/snippet}
