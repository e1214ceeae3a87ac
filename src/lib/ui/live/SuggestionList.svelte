<script lang="ts">
	import type { Suggestion } from '../../core/text/suggestions';
	import { colourOf } from './people-look';

	/** What is suggested, in the order of the text; somebody with Work takes or leaves each, or all. */
	let {
		suggestions,
		names,
		me,
		mayDecide,
		show,
		decide
	}: {
		suggestions: Suggestion[];
		/** Names of people, by id. */
		names: Record<string, string>;
		me: string;
		mayDecide: boolean;
		show: (one: Suggestion) => void;
		/** Accepts or rejects one, or all when none is given. */
		decide: (accept: boolean, one?: Suggestion) => void;
	} = $props();
</script>

{#if mayDecide && suggestions.length > 1}<p class="flex gap-2 px-3 py-2">
		<button class="button" onclick={() => decide(true)}>Accept all {suggestions.length}</button>
		<button class="button" onclick={() => decide(false)}>Reject all</button>
	</p>{/if}
<ul class="px-3">
	{#each suggestions as one (one.id)}
		<li class="border-b border-rule-2 py-2">
			<button class="block w-full text-left" onclick={() => show(one)}>
				<b class="font-semibold" style="color:{colourOf(one.author)}"
					>{one.author === me ? 'You' : (names[one.author] ?? 'Somebody who left')}</b
				>
				{#if one.removed}<span class="block break-words"
						>take out <del class="text-fault">{one.removed.slice(0, 200)}</del></span
					>{/if}
				{#if one.added}<span class="block break-words"
						>put in <ins class="text-done no-underline">{one.added.slice(0, 200)}</ins></span
					>{/if}
				{#if one.styled && !one.added && !one.removed}<span class="block">change how it looks</span>{/if}
			</button>
			<span class="mt-1 flex gap-1.5">
				{#if mayDecide}<button class="button" onclick={() => decide(true, one)}>Accept</button>{/if}
				{#if mayDecide || one.author === me}<button class="button" onclick={() => decide(false, one)}
						>{mayDecide ? 'Reject' : 'Withdraw'}</button
					>{/if}
			</span>
		</li>
	{:else}<li class="py-3 text-ink-2">
			Nothing is suggested. Whoever has Remark here suggests; whoever has Work can choose to.
		</li>{/each}
</ul>
