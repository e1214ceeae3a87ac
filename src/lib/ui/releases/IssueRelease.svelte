<script lang="ts">
	import { NUMBER_COLUMN } from '../kit/table';
	import Table from '../kit/Table.svelte';
	import Field from '../kit/Field.svelte';
	import Form from '../kit/Form.svelte';
	import { EXPECTS_LABEL, PROOF_LABEL, releaseNumber, replyDayOf } from '../../core/releases';
	import { PURPOSE_LABEL, type Purpose } from '../../core/revisions/revisions';
	import { addressOf, cupboard, type AnswerOf } from '../../client/cupboard';
	import { onMount } from 'svelte';
	import { attempt } from '../platform/api';
	import { heldOf } from './held';
	import { STATE_LABEL } from '../../core/documents/rows';
	import { stateIssued } from '../../core/documents/state';
	import { dayText, plural } from '../platform/words';

	/** Says once more everything that issuing a release will do; its number is typed, since nothing of it can be called back. */
	let {
		project,
		view,
		publishing,
		back,
		issued
	}: {
		project: string;
		view: AnswerOf<'releaseView'>;
		/** Which purposes make documents Published. */
		publishing: readonly Purpose[];
		/** Leaves it as it is. */
		back: () => void;
		issued: (passes: AnswerOf<'issueRelease'>['passes']) => unknown;
	} = $props();

	const release = $derived(view.release);
	const items = $derived(view.items);
	const recipients = $derived(view.recipients);
	type Item = AnswerOf<'releaseView'>['items'][number];
	type Recipient = AnswerOf<'releaseView'>['recipients'][number];
	const approvedBy = $derived(view.route.flatMap((one) => one.given.map((g) => g.by)));
	/** Why it cannot be issued now; empty where it can. */
	const barred = $derived(
		view.can.issueRelease.why ||
			(view.stopping
				? `${plural(view.stopping, 'document')} ${view.stopping === 1 ? 'stops' : 'stop'} the release. Look at its checks.`
				: '')
	);
	let typed = $state('');
	let code = $state('');
	let days = $state(60);
	/** Of each pass that asks for one, by who gets it. */
	let passwords = $state<Record<string, string>>({});
	const locked = $derived(recipients.filter((one) => one.asks === 'password'));
	const number = $derived(releaseNumber(release.number));
	const byCode = $derived(view.issueNeeds === 'code');
	const fits = $derived(
		byCode ? code.trim() !== '' : typed.trim() !== '' && Number(typed) === release.number
	);
	const changed = $derived(items.filter((i) => i.leaves !== null));
	/** The issued revision that a document's new one supersedes; what is issued again as it was supersedes nothing. */
	const replacedBy = (item: Item) => (item.supersedes === item.to ? null : item.supersedes);
	const replaced = $derived(items.filter(replacedBy));
	/** Who holds an earlier revision of a document, by their names; null until it is known. */
	let held = $state.raw<ReadonlyMap<string, readonly string[]> | null>(null);
	let unread = $state(false);
	onMount(async () => {
		held = await attempt(() => heldOf(project, release.id));
		unread = !held;
	});
	function holders(document: string): string {
		if (!held) return unread ? ', who holds it could not be read' : ', looking who holds it…';
		const by = held.get(document) ?? [];
		return by.length ? `, held by ${by.join(', ')}` : '';
	}
	const becomes = $derived(STATE_LABEL[stateIssued(release.purpose, publishing)]);

	async function submit() {
		const { passes } = await cupboard.issueRelease({
			release: release.id,
			...(byCode ? { timeCode: code } : { number: Number(typed) }),
			passDays: days,
			passwords: locked.map(({ recipient }) => ({ recipient, password: passwords[recipient] ?? '' }))
		});
		await issued(passes);
	}
	const seen = (one: Recipient) =>
		one.documents
			? `${one.gets} of ${plural(items.length, 'document')}, and not that there are others`
			: plural(items.length, 'document');
	const asked = (one: Recipient) => {
		const day = replyDayOf(release, one);
		return `${EXPECTS_LABEL[one.expects]}${day ? `, by ${dayText(day)}` : ''}`;
	};
</script>

<div class="grid h-full overflow-auto lg:grid-cols-[1fr_340px] lg:overflow-hidden">
	<div class="min-w-0 space-y-5 px-5 py-3 max-sm:px-3 lg:overflow-auto">
		<section>
			<h2 class="mb-1.5 text-[15px]">Who gets what</h2>
			<Table
				label="Who gets what"
				rows={recipients}
				key={(one) => one.recipient}
				empty="Nobody gets it."
				lines
				columns={[
					{ id: 'who', head: 'Who', cell: who, by: (one) => one.name },
					{ id: 'sees', head: 'Sees', text: seen },
					{ id: 'asked', head: 'Asked of them', text: asked },
					{ id: 'asks', head: 'Pass asks for', text: (one) => PROOF_LABEL[one.asks] },
					{ id: 'note', head: 'Cover note', cell: note }
				]}
			/>
			{#if release.words}<p class="mt-2 border-l-4 border-plank-2 bg-sheet px-3 py-2 whitespace-pre-line">
					<span class="cell-label block">What is said to them, in the cover note and the mail</span
					>{release.words}
				</p>{/if}
		</section>
		<section>
			<h2 class="mb-1.5 text-[15px]">What becomes of the documents</h2>
			<p class="mb-2 text-ink-2">
				{PURPOSE_LABEL[release.purpose]}: {items.length === 1 ? 'it becomes' : 'they become'}
				{becomes}.
				{#if release.stamped || release.withMarks}{changed.length
						? `${changed.length} of ${plural(items.length, 'document')} ${changed.length === 1 ? 'leaves' : 'leave'} changed; the originals stay, and the list names both.`
						: 'None of them leaves changed: what is asked for can be put on none.'}{/if}
			</p>
			<Table
				label="What becomes of each document"
				rows={items}
				key={(item) => item.documentId}
				empty="There are no documents."
				lines
				group={items.some((item) => item.heading) ? (item) => item.heading : undefined}
				columns={[
					NUMBER_COLUMN,
					{ id: 'title', head: 'Title', text: (item) => item.title, by: (item) => item.title },
					{
						id: 'goes',
						head: 'Revision',
						text: (item) =>
							item.label === item.to ? `${item.to}, issued before` : `${item.label} → ${item.to}`,
						class: 'font-mono text-[12.5px] whitespace-nowrap'
					},
					...(release.stamped || release.withMarks
						? [{ id: 'leaves', head: 'Leaves', cell: leaves, class: 'text-[12px]' }]
						: []),
					{ id: 'old', head: 'Superseded', cell: superseded }
				]}
			/>
		</section>
	</div>
	<aside class="border-rule bg-sheet px-5 py-4 max-lg:border-t lg:overflow-auto lg:border-l">
		<Form act={submit} button="Issue {number}" cancel={back} disabled={!fits || barred !== ''}>
			<h2 class="text-[15px]">Issue release {number}</h2>
			<dl class="[&_dt]:cell-label space-y-2">
				<div>
					<dt class="cell-label">Goes out</dt>
					<dd>{plural(items.length, 'document')} to {plural(recipients.length, 'recipient')}</dd>
				</div>
				<div>
					<dt class="cell-label">Approved by</dt>
					<dd>{approvedBy.join(', ') || 'nobody yet'}</dd>
				</div>
				<div>
					<dt class="cell-label">Superseded</dt>
					<dd>{replaced.length ? plural(replaced.length, 'earlier revision') : 'nothing'}</dd>
				</div>
			</dl>
			{#if barred}<p role="status" class="border-l-4 border-fault bg-fault-soft px-3 py-2">{barred}</p>{/if}
			{#each locked as one (one.recipient)}<Field
					label="Password of the pass of {one.name}, which you tell them another way"
					name="passwords"
					bind:value={() => passwords[one.recipient] ?? '', (to) => (passwords[one.recipient] = to)}
					minlength={8}
					autocomplete="off"
					required
				/>{/each}
			<Field
				label="Passes work for, in days"
				name="days"
				bind:value={days}
				type="number"
				min={1}
				max={730}
				mono
			/>
			{#if byCode}<Field
					label="Code of your authenticator, to issue it"
					name="timeCode"
					bind:value={code}
					autocomplete="one-time-code"
					required
					mono
				/>{:else}<Field
					label="Type {number} to issue it"
					name="number"
					bind:value={typed}
					autocomplete="off"
					required
					mono
				/>{/if}
			<p class="text-[12px] text-ink-2">
				Revisions and files are fixed by their hashes, and the mail goes out. What was sent cannot be called
				back.
			</p>
		</Form>
	</aside>
</div>

{#snippet who(one: Recipient)}<b class="font-semibold">{one.name}</b><span class="text-ink-2"
		>, {one.company} <span class="block text-[12px] break-all">{one.email}</span></span
	>{/snippet}
{#snippet note(one: Recipient)}{#if !barred}<a
			class="link text-[12px]"
			target="_blank"
			aria-label="Preview the cover note for {one.name}"
			href={addressOf('coverNoteDraftFile', { release: release.id, recipient: one.recipient })}>preview</a
		>{/if}{/snippet}
{#snippet leaves(item: Item)}{#if item.leaves}<a
			class="link"
			target="_blank"
			href={addressOf('releaseOutgoingFile', { release: release.id, document: item.documentId })}
			aria-label="{item.number} as it goes out: {item.leaves}">{item.leaves}</a
		>{:else}<span class="text-ink-2">as it is</span>{/if}{/snippet}
{#snippet superseded(item: Item)}{@const old = replacedBy(item)}{#if old}<span class="font-mono text-[12.5px]"
			>{old}</span
		><span class="text-ink-2">{holders(item.documentId)}</span>{/if}{/snippet}
