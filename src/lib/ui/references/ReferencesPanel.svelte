<script lang="ts">
	import type { AnswerOf } from '../../client/cupboard';
	import { cupboard } from '../../client/cupboard';
	import { attempt } from '../platform/api';
	import { plural } from '../platform/words';
	import { LOOK, saysOf } from './says';

	/** Which documents a document names, how these stand, and which name it. */
	let { document, code }: { document: string; code: string } = $props();

	let found = $state.raw<AnswerOf<'references'> | null>(null);
	$effect(() => {
		const asked = document;
		found = null;
		void attempt(async () => {
			const answer = await cupboard.references({ document: asked });
			if (asked === document) found = answer;
		});
	});
</script>

<div class="space-y-3 px-3 py-2">
	{#if found}
		<section>
			<h3 class="font-semibold">It refers to {plural(found.to.length, 'document')}</h3>
			<ul aria-label="Refers to">
				{#each found.to as one (one.number)}<li class="border-b border-rule-2 py-1">
						{#if one.document}<a class="link font-mono text-[12px]" href="/{code}/document/{one.document.id}"
								>{one.number}</a
							>
							{one.document.title}{:else}<span class="font-mono text-[12px]">{one.number}</span>{/if}
						<span class="block text-[12px] {LOOK[one.how]}">{saysOf(one)}</span>
					</li>{:else}<li class="text-ink-2">
						{found.read
							? 'No number of the project was found in the words of its newest version.'
							: 'The words of its newest version are still being read.'}
					</li>{/each}
			</ul>
		</section>
		<section>
			<h3 class="font-semibold">
				{found.more ? 'More than ' : ''}{plural(found.from.length, 'document')}
				{found.from.length === 1 ? 'refers' : 'refer'} to it
			</h3>
			<ul aria-label="Referred to by">
				{#each found.from as one (one.document)}<li class="border-b border-rule-2 py-1">
						<a class="link font-mono text-[12px]" href="/{code}/document/{one.document}">{one.number}</a>
						{one.title}
						{#if one.revision}<span class="block text-[12px] text-ink-2">names {one.revision}</span>{/if}
					</li>{/each}
			</ul>
		</section>
		{#if found.from.length || found.to.some((one) => one.document)}<a
				class="link"
				href="/{code}/document/{document}/references">See them as a picture, two steps far</a
			>{/if}
		<p class="text-[12px] text-ink-2">
			Read from the words of the newest versions that you may look at. Words in pictures are not read.
		</p>
	{:else}<p class="text-ink-2">Looking for numbers…</p>{/if}
</div>
