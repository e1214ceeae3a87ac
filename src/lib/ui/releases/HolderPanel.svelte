<script lang="ts">
	import type { AnswerOf } from '../../client/cupboard';
	import { releaseNumber } from '../../core/releases';
	import Revision from '../documents/Revision.svelte';
	import { dayText, whenText } from '../platform/words';

	/** What somebody holds of a document, how it came about, and what can be done about it. */
	let {
		row,
		holder,
		history,
		address,
		tell,
		send,
		close
	}: {
		row: AnswerOf<'holders'>['rows'][number];
		holder: AnswerOf<'holders'>['holders'][number];
		history: AnswerOf<'holding'>['rows'];
		/** Of the project. */
		address: string;
		tell: () => unknown;
		send: () => unknown;
		close: () => void;
	} = $props();

	const held = $derived(row.held.find((one) => one.holder === holder.key));
	const WAY = { sent: 'sent', downloaded: 'taken', opened: 'opened on screen' } as const;
</script>

<section
	class="grid shrink-0 border-t-2 border-ink bg-sheet md:grid-cols-[280px_1fr_260px] md:divide-x md:divide-rule [&>div]:px-4 [&>div]:py-2"
	aria-label="Chosen"
>
	<div>
		<h2 class="text-[14px]">{row.title}</h2>
		<a class="link font-mono text-[12.5px]" href="{address}/document/{row.document}">{row.number}</a>
		<p class="mt-1">
			{holder.name}{holder.company ? `, ${holder.company}` : ''}
			{#if held}holds <Revision
					label={held.label}
					issued={!held.label.includes('.')}
				/>{#if held.state === 'old'}
					<span class="font-semibold text-fault">; {row.issued} is current</span>{/if}{:else}holds none of it{/if}
		</p>
	</div>
	<div>
		<h3 class="cell-label">How it came about</h3>
		<ul class="max-h-[110px] overflow-auto">
			{#each history as one, at (at)}<li class="flex flex-wrap gap-x-3 border-b border-rule-2 py-0.5">
					<span class="w-[110px] font-mono text-[12px] text-ink-2">{whenText(one.at)}</span>
					<span class="flex-1"
						>{one.label}
						{WAY[one.way]}{#if one.release !== null}{one.way === 'sent' ? ' with' : ' through'}
							<a class="link" href="{address}/releases/{one.release}">release {releaseNumber(one.release)}</a
							>{/if}</span
					>
					{#if one.way === 'sent'}<span class="text-[12px] text-ink-2"
							>{one.confirmed ? `receipt ${dayText(one.confirmed)}` : 'not confirmed'}</span
						>{/if}
				</li>{:else}<li class="text-ink-2">Never sent to them, and never taken.</li>{/each}
		</ul>
	</div>
	<div>
		<div class="flex flex-wrap gap-2">
			<button class="button button-act" onclick={send}
				>{row.issued ? `Send ${row.issued}…` : 'Put in a release…'}</button
			>
			{#if held?.state === 'old' && holder.email}<button class="button" onclick={tell}
					>Tell {holder.name.split(' ')[0]}</button
				>{/if}
			<button class="button" onclick={close}>Close</button>
		</div>
		<p class="mt-1 text-[12px] text-ink-2">
			A copy that was downloaded stays where it is; the mail names what is out of date.
		</p>
	</div>
</section>
