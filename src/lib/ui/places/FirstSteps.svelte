<script lang="ts">
	import CheckIcon from '@lucide/svelte/icons/check';
	import { examplesOf } from '../../core/numbering/rule';
	import type { NumberingRule } from '../../core/numbering/numbering';
	import { exampleOf, type RevisionScheme } from '../../core/revisions/revisions';
	import { plural } from '../platform/words';

	/** What a project needs before the first document, in its order; each step can be passed over. */
	let {
		base,
		departments,
		numbering,
		revisions,
		chooseSchemes,
		makeShelf
	}: {
		base: string;
		departments: readonly { people: number }[];
		numbering: NumberingRule;
		revisions: RevisionScheme;
		chooseSchemes: () => void;
		makeShelf: () => void;
	} = $props();
	const people = $derived(departments.reduce((sum, one) => sum + one.people, 0));
</script>

{#snippet step(number: number, done: boolean, title: string, says: string)}
	<span
		class="grid h-7 w-7 shrink-0 place-items-center rounded-sm font-mono {done
			? 'bg-done-soft text-done'
			: 'border border-ink-2'}"
		>{#if done}<CheckIcon size={15} aria-label="done" />{:else}{number}{/if}</span
	>
	<span class="min-w-0 flex-1"
		><b class="block font-semibold">{title}</b><span class="text-ink-2">{says}</span></span
	>
{/snippet}

<section class="mx-auto mt-10 max-w-[640px]" aria-labelledby="first-steps">
	<h2 id="first-steps" class="text-[18px]">The cupboard is empty</h2>
	<p class="mb-3 text-ink-2">
		Four steps to the first document. Each can wait; none is for ever. How everything works stands in
		<a class="link" href="{base}/help">a screen a subject</a>.
	</p>
	<ol
		class="border-t border-ink [&>li]:flex [&>li]:items-center [&>li]:gap-3 [&>li]:border-b [&>li]:border-rule [&>li]:bg-sheet [&>li]:px-3 [&>li]:py-2.5"
	>
		<li>
			{@render step(
				1,
				departments.length > 0,
				'Departments',
				departments.length
					? `${plural(departments.length, 'department')}, each with a code for its numbers.`
					: 'Who makes what. A department owns its shelf, and its code stands in its numbers.'
			)}
			<a class="button" href="{base}/people">{departments.length ? 'Look at them' : 'Make departments'}</a>
		</li>
		<li>
			{@render step(
				2,
				people > 1,
				'People',
				people > 1
					? `${plural(people, 'person', 'people')} in departments.`
					: 'Colleagues by their mail address, into departments. Leads decide about their own shelf.'
			)}
			<a class="button" href="{base}/people">Invite people</a>
		</li>
		<li>
			{@render step(
				3,
				false,
				'Numbering and revisions',
				`Numbers look like ${examplesOf(numbering, 1)[0]!.number}, revisions like ${exampleOf(revisions).slice(0, 3).join(', ')}. Change that now, or when the first do not fit.`
			)}
			<button class="button" onclick={chooseSchemes}>Choose them</button>
		</li>
		<li>
			{@render step(
				4,
				false,
				'Shelves',
				'One for each department, invisible to the others until you say otherwise.'
			)}
			<button class="button button-act" onclick={makeShelf}>New shelf</button>
		</li>
	</ol>
</section>
