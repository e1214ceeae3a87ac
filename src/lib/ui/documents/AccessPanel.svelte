<script lang="ts">
	import { levelLabel } from '../../core/access/levels';
	import type { ReachRow } from '../../core/access/rows';
	import { cupboard } from '../../client/cupboard';
	import { attempt } from '../platform/api';

	/** Who reaches a document, how far, and through what. */
	let {
		document,
		code,
		counted
	}: {
		document: string;
		code: string;
		/** Told how many reach it. */
		counted?: (people: number) => void;
	} = $props();

	let reached = $state<ReachRow[] | null>(null);
	$effect(() => {
		const asked = document;
		reached = null;
		void attempt(async () => {
			const { people } = await cupboard.access({ place: asked });
			if (asked !== document) return;
			reached = people;
			counted?.(people.length);
		});
	});
</script>

<ul class="grid grid-cols-[repeat(auto-fill,minmax(260px,1fr))] gap-x-6 px-3 py-1">
	{#each reached ?? [] as p (p.person)}<li class="flex gap-2 border-b border-rule-2 py-1">
			<b class="font-semibold whitespace-nowrap">{p.name}</b>
			{#if p.outside}<span class="text-[11.5px] text-ink-2">outside</span>{/if}
			<span class="ml-auto">{levelLabel(p.level)}</span>
			<span class="w-[36%] shrink-0 truncate text-ink-2" title={p.through}>{p.through}</span>
		</li>{/each}
</ul>
<p class="px-3 py-2"><a class="link" href="/{code}/access/{document}">Change or explain</a></p>
