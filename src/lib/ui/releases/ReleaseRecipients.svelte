<script lang="ts">
	import { addressOf, type AnswerOf } from '../../client/cupboard';
	import { EXPECTS_LABEL, PROOF_LABEL, replyDayOf } from '../../core/releases';
	import Table from '../kit/Table.svelte';
	import { dayText, plural, whenText } from '../platform/words';

	/** Who gets a release: what of it, what for, by when, and what has come back. */
	let {
		release: about,
		recipients,
		documents,
		mayChoose,
		mayWithdraw,
		mayAnswer,
		choose,
		withdraw,
		letIn,
		refuse
	}: {
		release: AnswerOf<'releaseView'>['release'];
		recipients: AnswerOf<'releaseView'>['recipients'];
		/** How many documents the release holds. */
		documents: number;
		/** Whether the reader can say what each gets, and withdraw their passes. */
		mayChoose: boolean;
		mayWithdraw: boolean;
		choose: (one: Recipient) => void;
		withdraw: (one: Recipient) => void;
		/** Whether the reader answers recipients who ask to bring in colleagues. */
		mayAnswer: boolean;
		letIn: (colleague: Recipient['colleagues'][number]) => void;
		refuse: (colleague: Recipient['colleagues'][number]) => void;
	} = $props();
	type Recipient = AnswerOf<'releaseView'>['recipients'][number];

	const done = $derived(about.issuedAt !== null);
	const open = $derived(!done && about.state !== 'cancelled' && documents > 0);
	const back = (one: Recipient) => {
		const { pass } = one;
		if (!pass) return '';
		const received = pass.receivedAt ? `received ${dayText(pass.receivedAt)}` : '';
		const opened = pass.uses ? `opened ${whenText(pass.lastUsedAt!)}` : 'not opened yet';
		const verdicts =
			one.expects === 'verdicts' && one.answered ? `, ${one.answered} of ${plural(one.gets, 'verdict')}` : '';
		return (received || opened) + verdicts;
	};
</script>

<h2 class="mb-1.5 text-[15px]">Goes to</h2>
<div class="mb-4">
	<Table
		label="Who gets the release"
		rows={recipients}
		key={(one) => one.recipient}
		empty="Nobody gets it yet. Choose who does with Change…"
		lines
		columns={[
			{ id: 'who', head: 'Who', cell: who, by: (one) => one.name },
			{ id: 'gets', head: 'Gets', cell: gets, class: 'whitespace-nowrap' },
			{ id: 'for', head: 'Asked of them', text: (one) => EXPECTS_LABEL[one.expects] },
			{ id: 'reply', head: 'Reply by', cell: reply, class: 'whitespace-nowrap' },
			...(done
				? [
						{ id: 'back', head: 'So far', text: back },
						{ id: 'pass', head: 'Pass', cell: pass }
					]
				: [
						{ id: 'asks', head: 'Pass asks for', text: (one: Recipient) => PROOF_LABEL[one.asks] },
						...(open ? [{ id: 'note', head: 'Cover note', cell: note }] : [])
					])
		]}
	/>
</div>

{#snippet reply(one: Recipient)}{@const day = replyDayOf(about, one)}{#if day}<span class="sm:hidden"
			>reply by&nbsp;</span
		>{dayText(day)}{/if}{/snippet}
{#snippet note(one: Recipient)}<a
		class="link text-[12px]"
		target="_blank"
		aria-label="Preview the cover note for {one.name}"
		href={addressOf('coverNoteDraftFile', { release: about.id, recipient: one.recipient })}>preview</a
	>{/snippet}
{#snippet who(one: Recipient)}<b class="font-semibold">{one.name}</b><span class="text-ink-2"
		>, {one.company}</span
	>{#each one.colleagues as other (other.id)}{#if other.state === 'in'}<span
				class="block text-[12px] text-ink-2"
				>{other.instead ? 'handed over to' : 'with'} {other.name}, {other.email}</span
			>{:else if other.state === 'asked'}<span
				class="mt-1 flex flex-wrap items-center gap-x-2 gap-y-1 border-l-4 border-wait bg-wait-soft px-2 py-1 text-[12px]"
				><span class="min-w-0"
					>{other.askedBy} asks that {other.name}, <span class="break-all">{other.email}</span>, answers {other.instead
						? 'in their stead'
						: 'along with them'}{other.words ? `: “${other.words}”` : ''}</span
				>{#if mayAnswer}<span class="flex gap-1.5"
						><button class="button" aria-label="Let {other.name} in" onclick={() => letIn(other)}
							>Let in</button
						><button class="button" aria-label="Refuse {other.name}…" onclick={() => refuse(other)}
							>Refuse…</button
						></span
					>{/if}</span
			>{/if}{/each}{/snippet}
{#snippet gets(one: Recipient)}{one.documents
		? `${one.gets} of ${documents}`
		: plural(documents, 'document')}{#if mayChoose && documents}
		<button class="link ml-1 text-[12px]" aria-label="Choose what {one.name} gets" onclick={() => choose(one)}
			>choose</button
		>{/if}{/snippet}
{#snippet pass(one: Recipient)}{#if one.pass?.withdrawnAt}<span class="text-fault"
			>withdrawn {dayText(one.pass.withdrawnAt)}</span
		>{:else if one.pass}<span class="whitespace-nowrap">until {dayText(one.pass.endsAt)}</span
		>{/if}{#if mayWithdraw && one.pass?.open}
		<button
			class="link ml-1 text-[12px]"
			aria-label="Withdraw pass of {one.name}"
			onclick={() => withdraw(one)}>withdraw</button
		>{/if}{/snippet}
