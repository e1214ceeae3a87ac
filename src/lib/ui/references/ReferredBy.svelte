<script lang="ts">
	import { cupboard, type AnswerOf } from '../../client/cupboard';
	import { plural } from '../platform/words';

	/** Who builds on a document: said where a new version of it is stored or issued. Nothing where nobody does. */
	let { document }: { document: string } = $props();

	let from = $state.raw<AnswerOf<'references'>['from']>([]);
	let more = $state(false);
	$effect(() => {
		const asked = document;
		cupboard
			.references({ document: asked })
			.then((answer) => {
				if (asked === document) [from, more] = [answer.from, answer.more];
			})
			// What is only said by the way is left out when it cannot be had.
			.catch(() => {});
	});
	/** So many are named. */
	const NAMED = 4;
	const named = $derived(
		from
			.slice(0, NAMED)
			.map((one) => (one.revision ? `${one.number} (${one.revision})` : one.number))
			.join(', ')
	);
</script>

{#if from.length}<p class="border-l-4 border-wait bg-wait-soft px-3 py-1.5">
		{more ? 'More than ' : ''}{plural(from.length, 'document')}
		{from.length === 1 ? 'refers' : 'refer'} to this:
		<span class="font-mono text-[12px]">{named}</span>{from.length > NAMED
			? ` and ${from.length - NAMED} more`
			: ''}.
	</p>{/if}
