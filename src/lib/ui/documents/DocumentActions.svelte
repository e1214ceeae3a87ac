<script lang="ts">
	import { later } from '../kit/later';
	import { goto } from '$app/navigation';
	import { page } from '$app/state';
	import { toast } from '../kit/toast';
	import type { Level } from '../../core/access/levels';
	import { ended } from '../../core/words/sentences';
	import { addressOf, cupboard } from '../../client/cupboard';
	import { attempt } from '../platform/api';
	import type { DocumentView } from './document-view';
	import BrokenLock from '../locks/BrokenLock.svelte';
	import HandInDialog from './HandInDialog.svelte';
	import { LIVE_KINDS } from '../../core/live/live';
	import { ON_SCREEN } from '../live/kinds';
	import LockTag from '../locks/LockTag.svelte';
	import Menu from '../kit/Menu.svelte';
	import ReasonDialog from '../kit/ReasonDialog.svelte';
	import { arrange, menuOf, type Offer } from './offers';
	import { fetchFile } from '../platform/fetch-file';
	import { bookmark } from '../today/bookmark';
	import { restorePlace } from '../places/restore';
	import { dayText, plural, timeText, whenText } from '../platform/words';
	import { projectDayWords } from '../platform/project-day';

	/** What can be done with a document now, and who has it in hand. The parent offers the keys `L` and `H`. */
	let {
		view,
		project,
		code,
		controller,
		retentionDays,
		outsideLevel,
		onPage = false,
		more = [],
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
		/** What the screen around it offers beside. */
		more?: readonly Offer[];
		changed: () => void;
		putInRelease: () => void;
	} = $props();

	const row = $derived(view.row);
	const lock = $derived(row.lock);
	const live = $derived(view.room !== null);
	const can = $derived(view.can);
	/** As what the newest version can be edited together, or null when it cannot be. */
	const mayGoLive = $derived(LIVE_KINDS.find((kind) => can[ON_SCREEN[kind].begins].may) ?? null);
	let locking = $state(false);
	let handing = $state(false);
	let removing = $state(false);
	let passing = $state(false);
	let extending = $state(false);
	let handingOver = $state(false);
	let asking = $state(false);
	let breaking = $state(false);
	let beside = $state(false);
	let changing = $state(false);
	let revising = $state(false);
	let beginning = $state(false);
	const until = $derived(projectDayWords(retentionDays));

	/** Opens the lock dialog when locking applies. */
	export function startLock() {
		if (can.takeLock.may) locking = true;
		else toast(can.takeLock.why);
	}
	export function startHandIn() {
		if (live ? can.handInLive.may : lock?.mine) handing = true;
		else if (can.takeLock.may) toast('Lock it first, then hand in.');
		else toast(live ? can.handInLive.why : can.takeLock.why);
	}
	async function ask(note: string) {
		await cupboard.askForLock({ document: row.id, note });
		toast.success(`${lock!.holder} is asked; you are told when it is free.`);
		changed();
	}
	async function wait(yes: boolean) {
		const done = await attempt<unknown>(() =>
			yes ? cupboard.waitForLock({ document: row.id }) : cupboard.endWish({ document: row.id })
		);
		if (!done) return;
		toast.success(yes ? 'You are told when it is free.' : 'You do not wait for it any more.');
		changed();
	}
	async function breakIt(reason: string) {
		await cupboard.breakLock({ document: row.id, reason });
		toast.success(`The lock is broken; ${lock!.holder} is told.`);
		changed();
	}
	async function endLive() {
		if (!(await attempt(() => cupboard.endLive({ document: row.id })))) return;
		toast.success(`${row.number} is a file again, at ${row.label}.`);
		changed();
	}
	async function giveBack() {
		if (await attempt(() => cupboard.giveBackLock({ document: row.id }))) changed();
	}
	async function remove(reason: string) {
		await cupboard.removePlace({ place: row.id, reason });
		const { id, number } = row;
		toast(`${number} is removed.`, { takeBack: () => void restorePlace(id, changed) });
		changed();
	}
	/** Keeps it at hand, or no longer. */
	export const startBookmark = () =>
		void bookmark(project, { id: row.id, name: row.number, atHand: view.atHand }, changed);

	const downloaded = $derived(addressOf('versionFile', { document: row.id, label: row.label, download: '' }));
	/** All that can be done now, by the answers of the acts themselves. */
	const offers = $derived.by(() => {
		const list: (Offer | false | null | undefined)[] = [
			!onPage && { id: 'open', group: 'show', word: 'Open', href: `/${code}/document/${row.id}` },
			(lock?.mine || (!lock && live && can.takeLock.may)) && {
				id: 'hand-in',
				group: 'work',
				word: 'Hand in',
				key: 'H',
				act: () => (handing = true)
			},
			!lock &&
				can.takeLock.may && {
					id: 'lock',
					group: 'work',
					word: 'Lock',
					key: 'L',
					act: () => (locking = true)
				},
			lock?.mine && {
				id: 'give-back',
				group: 'work',
				word: 'Give back unchanged',
				act: () => void giveBack()
			},
			lock?.mine && { id: 'extend', group: 'work', word: 'Keep it longer…', act: () => (extending = true) },
			lock?.mine && { id: 'hand-over', group: 'work', word: 'Hand over…', act: () => (handingOver = true) },
			lock &&
				!lock.mine &&
				view.waiting.mine && {
					id: 'stop-waiting',
					group: 'work',
					word: view.waiting.mine === 'asked' ? 'Asked; stop waiting' : 'Stop waiting',
					act: () => void wait(false)
				},
			lock &&
				!lock.mine &&
				!view.waiting.mine &&
				can.askForLock.may && {
					id: 'ask',
					group: 'work',
					word: 'Ask for the lock…',
					act: () => (asking = true)
				},
			lock &&
				!lock.mine &&
				!view.waiting.mine &&
				can.waitForLock.may && {
					id: 'wait',
					group: 'work',
					word: 'Tell me when free',
					act: () => void wait(true)
				},
			lock &&
				!lock.mine &&
				can.handIn.may && {
					id: 'beside',
					group: 'work',
					word: 'Hand in beside…',
					act: () => (beside = true)
				},
			lock &&
				!lock.mine &&
				can.breakLock.may && {
					id: 'break',
					group: 'work',
					word: 'Break the lock…',
					act: () => (breaking = true)
				},
			mayGoLive && { id: 'begin', group: 'work', word: 'Edit together…', act: () => (beginning = true) },
			can.endLive.may &&
				onPage && { id: 'end', group: 'work', word: 'End editing together', act: () => void endLive() },
			can.downloadDocument.may && {
				id: 'download',
				group: 'send',
				word: 'Download',
				href: downloaded,
				download: true
			},
			view.versions.length > 1 && {
				id: 'compare',
				group: 'show',
				word: 'Compare',
				key: 'C',
				href: `/${code}/document/${row.id}/compare`
			},
			{
				id: 'bookmark',
				group: 'show',
				word: view.atHand ? 'Keep at hand no longer' : 'Keep at hand',
				key: 'B',
				act: startBookmark
			},
			controller && { id: 'release', group: 'send', word: 'Put in release…', key: 'R', act: putInRelease },
			can.makePass.may && {
				id: 'pass',
				group: 'send',
				word: 'Make a pass…',
				hint: 'a link for people without an account',
				act: () => (passing = true)
			},
			{ id: 'access', group: 'send', word: 'Access', key: 'A', href: `/${code}/access/${row.id}` },
			can.issueRevision.may && {
				id: 'issue',
				group: 'keep',
				word: 'Issue or state…',
				act: () => (revising = true)
			},
			can.changeDocument.may && {
				id: 'change',
				group: 'keep',
				word: 'Properties…',
				act: () => (changing = true)
			},
			can.removePlace.may && {
				id: 'remove',
				group: 'keep',
				word: 'Remove…',
				dangerous: true,
				act: () => (removing = true)
			}
		];
		return [...more, ...list.filter((one): one is Offer => Boolean(one))];
	});
	const arranged = $derived(arrange(offers, onPage ? 'page' : 'block'));
	/** Goes where an offer leads; a file comes as if its link had been pressed. */
	function follow({ href, download }: Offer) {
		if (!href) return;
		if (download) fetchFile(href);
		else void goto(href);
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
		{#if lock.mine && view.waiting.asked.length}<p class="mb-2 border-l-4 border-wait bg-wait-soft px-2 py-1">
				{#each view.waiting.asked as one (one.name)}<span class="block"
						><b class="font-semibold">{one.name}</b> asks for it{one.note ? `: ${one.note}` : ''}</span
					>{/each}
			</p>{/if}
	{:else}<p class="mb-2 text-ink-2">
			Nobody has this in hand. {row.frozen
				? `Frozen by ${row.frozen.by}: ${ended(row.frozen.reason)}`
				: can.takeLock.may
					? ''
					: `You have ${view.levelLabel} here.`}
		</p>{/if}
{/if}
{#if view.broken && can.handIn.may}<div class="mb-1.5">
		<BrokenLock {view} bring={() => (lock?.mine ? (handing = true) : (beside = true))} {changed} />
	</div>{/if}
<div class="flex flex-wrap gap-1.5">
	{#if arranged.main}{@render button(arranged.main, true)}{/if}
	{#each arranged.near as offer (offer.id)}{@render button(offer, false, 'max-md:hidden')}{/each}
	<Menu
		label="Actions"
		groups={menuOf([...arranged.near.map((offer) => ({ ...offer, narrow: true })), ...arranged.rest], follow)}
	/>
</div>

{#snippet button(offer: Offer, main: boolean, look = '')}
	{#if offer.href}<a
			class="button {main ? 'button-act' : look}"
			href={offer.href}
			download={offer.download ? '' : undefined}>{offer.word}</a
		>{:else}<button class="button {main ? 'button-act' : look}" aria-pressed={offer.on} onclick={offer.act}
			>{offer.word}</button
		>{/if}
{/snippet}
{#if locking}{#await later( () => import('../locks/LockDialog.svelte'), () => (locking = false) ) then LockDialog}<LockDialog
			bind:open={locking}
			documents={[row.id]}
			{project}
			name={row.number}
			done={changed}
		/>{/await}{/if}
{#if extending}{#await later( () => import('../locks/LockDialog.svelte'), () => (extending = false) ) then LockDialog}<LockDialog
			bind:open={extending}
			documents={[row.id]}
			{project}
			name={row.number}
			extends={lock?.mine ? { purpose: lock.purpose } : null}
			done={changed}
		/>{/await}{/if}
{#if changing}{#await later( () => import('./ChangeDialog.svelte'), () => (changing = false) ) then ChangeDialog}<ChangeDialog
			bind:open={changing}
			{row}
			done={changed}
		/>{/await}{/if}
{#if revising}{#await later( () => import('./ReviseDialog.svelte'), () => (revising = false) ) then ReviseDialog}<ReviseDialog
			bind:open={revising}
			{row}
			scheme={page.data.frame.project.revisions}
			done={changed}
		/>{/await}{/if}
{#if handingOver}{#await later( () => import('../locks/HandOverDialog.svelte'), () => (handingOver = false) ) then HandOverDialog}<HandOverDialog
			bind:open={handingOver}
			document={row.id}
			number={row.number}
			done={changed}
		/>{/await}{/if}
{#if view.room}{#if handing}{#await later( () => import('../live/HandInLiveDialog.svelte'), () => (handing = false) ) then HandInLiveDialog}<HandInLiveDialog
				bind:open={handing}
				document={row.id}
				number={row.number}
				kind={view.room.kind}
				done={changed}
			/>{/await}{/if}
{:else}{#if handing}<HandInDialog
			bind:open={handing}
			document={row.id}
			number={row.number}
			newest={row.label}
			{code}
			{project}
			done={changed}
		/>{/if}{/if}
{#if mayGoLive}{#if beginning}{#await later( () => import('../live/WorkLiveDialog.svelte'), () => (beginning = false) ) then WorkLiveDialog}<WorkLiveDialog
				bind:open={beginning}
				{row}
				{code}
				kind={mayGoLive}
				done={changed}
			/>{/await}{/if}{/if}
{#if beside}<HandInDialog
		bind:open={beside}
		document={row.id}
		number={row.number}
		newest={row.label}
		{code}
		{project}
		labels={view.versions.map((v) => v.label)}
		done={changed}
	/>{/if}
{#if asking}<ReasonDialog
		bind:open={asking}
		title="Ask {lock?.holder ?? ''} for {row.number}"
		consequence="They are told at once; you are told when it is free."
		button="Ask"
		required={false}
		act={ask}
	/>{/if}
{#if breaking}<ReasonDialog
		bind:open={breaking}
		title="Break the lock of {lock?.holder ?? ''}?"
		consequence="{row.number} becomes free for others. {lock?.holder ??
			''} is told; what they hand in later is kept as a side version, nothing they wrote is lost."
		button="Break the lock"
		dangerous
		act={breakIt}
	/>{/if}
{#if can.makePass.may}{#if passing}{#await later( () => import('../passes/PassDialog.svelte'), () => (passing = false) ) then PassDialog}<PassDialog
				bind:open={passing}
				place={{ id: row.id, name: `${row.number} ${row.title}`, kind: 'document' }}
				{outsideLevel}
				labels={view.versions.map((v) => v.label)}
				done={changed}
			/>{/await}{/if}{/if}
{#if removing}<ReasonDialog
		bind:open={removing}
		title="Remove {row.number}?"
		consequence="{row.title} with its {plural(
			row.versions,
			'version'
		)} goes out of sight for everybody{lock && !lock.mine
			? `; ${lock.holder} has it in hand`
			: ''}. It can be restored until {until}."
		button="Remove"
		dangerous
		act={remove}
	/>{/if}
