<script lang="ts">
	import { toast } from 'svelte-sonner';
	import type { Level } from '../core/access/levels';
	import { attempt, call } from './api';
	import type { DocumentView } from './document-view';
	import HandInDialog from './HandInDialog.svelte';
	import LockDialog from './LockDialog.svelte';
	import LockTag from './LockTag.svelte';
	import PassDialog from './PassDialog.svelte';
	import ReasonDialog from './ReasonDialog.svelte';
	import { restorePlace } from './restore';
	import { dayText, timeText, whenText } from './words';

	/** What can be done with a document now, and who has it in hand. The parent offers the keys `L` and `H`. */
	let {
		view,
		project,
		code,
		controller,
		retentionDays,
		outsideLevel,
		onPage = false,
		changed,
		putInRelease
	}: {
		view: DocumentView;
		project: string;
		code: string;
		controller: boolean;
		retentionDays: number;
		outsideLevel: Level | null;
		onPage?: boolean;
		changed: () => void;
		putInRelease: () => void;
	} = $props();

	const row = $derived(view.row);
	const lock = $derived(row.lock);
	let locking = $state(false);
	let handing = $state(false);
	let removing = $state(false);
	let passing = $state(false);
	const until = $derived(dayText(new Date(Date.now() + retentionDays * 86_400_000)));

	/** Opens the lock dialog when locking applies. */
	export function startLock() {
		if (view.mayWork && !lock) locking = true;
		else if (lock && !lock.mine) toast(`${lock.holder} has this in hand.`);
	}
	export function startHandIn() {
		if (lock?.mine) handing = true;
		else if (view.mayWork && !lock) toast('Lock it first, then hand in.');
	}
	async function giveBack() {
		if (await attempt(() => call('DELETE', `/documents/${row.id}/lock`))) changed();
	}
	async function remove(reason: string) {
		await call('POST', `/places/${row.id}/removal`, { reason });
		const { id, number } = row;
		toast(`${number} is removed.`, {
			duration: 10_000,
			action: { label: 'Take back', onClick: () => void restorePlace(id, changed) }
		});
		changed();
	}
</script>

{#if !onPage}
	{#if lock}
		<p class="mb-1">
			<LockTag {lock} compact />
			<b class="font-semibold">{lock.mine ? 'have this in hand' : 'has this in hand'}</b>
		</p>
		<p class="mb-2 text-[12px] text-ink-2">
			Since {whenText(lock.since).replace('today ', '')}{lock.purpose ? `, for “${lock.purpose}”` : ''}.
			{lock.expectedEnd
				? lock.stale
					? `Was expected back ${whenText(lock.expectedEnd)}.`
					: `Back by ${dayText(lock.expectedEnd) === dayText(new Date()) ? timeText(lock.expectedEnd) : whenText(lock.expectedEnd)}.`
				: ''}
			{lock.mine ? '' : `You see the last version, ${row.label}.`}
		</p>
	{:else}<p class="mb-2 text-ink-2">
			Nobody has this in hand. {row.frozen
				? `Frozen by ${row.frozen.by}: ${row.frozen.reason}.`
				: view.mayWork
					? ''
					: `You have ${view.levelLabel} here.`}
		</p>{/if}
{/if}
<div class="flex flex-wrap gap-1.5">
	{#if !onPage}<a class="button {lock?.mine ? '' : 'button-act'}" href="/{code}/document/{row.id}">Open</a
		>{/if}
	{#if lock?.mine}
		<button class="button button-act" onclick={() => (handing = true)}>Hand in</button>
		<button class="button" onclick={giveBack}>Give back unchanged</button>
	{:else if view.mayWork && !lock}
		<button class="button {onPage ? 'button-act' : ''}" onclick={() => (locking = true)}>Lock</button>
	{/if}
	{#if view.mayTake}<a
			class="button"
			download
			href="/api/v1/documents/{row.id}/versions/{row.label}/file?download">Download</a
		>{/if}
	{#if view.versions.length > 1}<a class="button" href="/{code}/document/{row.id}/compare">Compare</a>{/if}
	{#if controller}<button class="button" onclick={putInRelease}>Put in release…</button>{/if}
	<a class="button" href="/{code}/access/{row.id}">Access</a>
	{#if view.mayRun}<button class="button" onclick={() => (passing = true)}>Make a pass…</button>{/if}
	{#if view.mayTidy || (view.mayWork && view.mine)}<button class="button" onclick={() => (removing = true)}
			>Remove…</button
		>{/if}
</div>

<LockDialog bind:open={locking} document={row.id} number={row.number} done={changed} />
<HandInDialog bind:open={handing} document={row.id} number={row.number} {project} done={changed} />
{#if view.mayRun}<PassDialog
		bind:open={passing}
		place={{ id: row.id, name: `${row.number} ${row.title}`, kind: 'document' }}
		{outsideLevel}
		labels={view.versions.map((v) => v.label)}
		done={changed}
	/>{/if}
<ReasonDialog
	bind:open={removing}
	title="Remove {row.number}?"
	consequence="{row.title} with its {row.versions} versions goes out of sight for everybody{lock && !lock.mine
		? `; ${lock.holder} has it in hand`
		: ''}. It can be restored until {until}."
	button="Remove"
	dangerous
	act={remove}
/>
