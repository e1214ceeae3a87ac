<script lang="ts">
	import ReplyDay from './ReplyDay.svelte';
	import X from '@lucide/svelte/icons/x';
	import { SvelteSet } from 'svelte/reactivity';
	import {
		EXPECTS,
		MOST_RECIPIENTS,
		PROOF_LABEL,
		PROOFS,
		type Expects,
		type ProofAsked
	} from '../../core/releases';
	import Field from '../kit/Field.svelte';
	import { isKnown, type Pickable, type Picked } from '../kit/person';
	import PersonPicker from '../kit/PersonPicker.svelte';
	import Select from '../kit/Select.svelte';
	import { plural } from '../platform/words';
	import type { Receiver } from './recipients';

	/** Who gets a release: what is asked of each, by when, and how they prove who they are. */
	let {
		receivers = $bindable(),
		known,
		receiver,
		proposed = false,
		propose
	}: {
		receivers: Receiver[];
		known: readonly Pickable[];
		/** Somebody as they were picked. */
		receiver: (one: Picked) => Receiver;
		/** Whether these are whom the distribution list proposes. */
		proposed?: boolean;
		/** Takes those whom the distribution list proposes, instead. */
		propose?: (() => void) | undefined;
	} = $props();

	/** Those who are to have a reply day of their own, by their addresses. */
	const apart = new SvelteSet<string>();
	const ASKED: Record<Expects, string> = {
		verdicts: 'a verdict on each document',
		receipt: 'that they confirm receipt',
		information: 'nothing, it is for information'
	};
	const addressOf = ({ to }: Receiver) => (isKnown(to) ? (to.email ?? '') : to.email);
	const nameOf = (one: Receiver) => one.name || addressOf(one);
	const change = (at: number, to: Partial<Receiver>) =>
		(receivers = receivers.map((one, i) => (i === at ? { ...one, ...to } : one)));
</script>

<fieldset>
	<legend class="label">Goes to{proposed ? ', as the distribution list says' : ''}</legend>
	{#if propose && !proposed}<button type="button" class="link mb-1.5 text-[12px]" onclick={propose}
			>Take whom the distribution list says</button
		>{/if}
	<ul class="space-y-2">
		{#each receivers as one, at (addressOf(one))}
			<li class="border border-rule bg-sheet px-2.5 py-2">
				<div class="flex items-start gap-2">
					<p class="min-w-0 flex-1">
						<b class="font-semibold">{nameOf(one)}</b>
						<span class="text-ink-2"
							>{isKnown(one.to) ? one.company : ''}{one.documents
								? `, ${plural(one.documents.length, 'document')} of it`
								: ''}</span
						>
					</p>
					<button
						type="button"
						class="grid h-6 w-6 place-items-center text-ink-2 hover:text-fault"
						aria-label="Leave {nameOf(one)} out"
						onclick={() => (receivers = receivers.filter((_, i) => i !== at))}><X size={14} /></button
					>
				</div>
				{#if !isKnown(one.to)}<div class="mb-1.5 grid grid-cols-2 gap-2">
						<Field
							label="Name"
							name="name"
							bind:value={() => one.name, (name) => change(at, { name })}
							maxlength={180}
							required
						/>
						<Field
							label="Company"
							name="company"
							bind:value={() => one.company, (company) => change(at, { company })}
							maxlength={180}
							required
						/>
						<p class="col-span-2 text-[12px] text-ink-2">
							They join the distribution list with it. They need no account.
						</p>
					</div>{/if}
				<div class="grid grid-cols-[1fr_1fr] gap-2 text-[12px]">
					<label class="block"
						><span class="label">Asked of them</span><Select
							label="What is asked of {nameOf(one)}"
							choices={EXPECTS.map((value) => ({ value, label: ASKED[value] }))}
							value={one.expects}
							choose={(to) => change(at, { expects: to as Expects })}
						/></label
					>
					<label class="block"
						><span class="label">Their pass asks for</span><Select
							label="What the pass of {nameOf(one)} asks for"
							choices={PROOFS.map((value) => ({ value, label: PROOF_LABEL[value] }))}
							value={one.asks}
							choose={(to) => change(at, { asks: to as ProofAsked })}
						/></label
					>
					{#if one.expects === 'verdicts' && (one.replyBy || apart.has(addressOf(one)))}<div
							class="col-span-2"
						>
							<ReplyDay
								label="Reply of {nameOf(one)} by"
								bind:value={() => one.replyBy, (replyBy) => change(at, { replyBy })}
							/>
						</div>{:else if one.expects === 'verdicts' && receivers.length > 1}<p class="col-span-2">
							<button type="button" class="link" onclick={() => apart.add(addressOf(one))}
								>Another reply day for {nameOf(one)}</button
							>
						</p>{/if}
				</div>
			</li>
		{/each}
	</ul>
	{#if receivers.length < MOST_RECIPIENTS}<div class={receivers.length ? 'mt-2' : ''}>
			<PersonPicker
				label="To"
				inline
				known={known.filter((one) => !receivers.some((r) => addressOf(r) === one.email))}
				newcomers
				placeholder={receivers.length ? 'and to…' : 'Name, or a mail address for somebody new'}
				pick={(one) => (receivers = [...receivers, receiver(one)])}
			/>
		</div>{/if}
</fieldset>
