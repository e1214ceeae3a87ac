<script lang="ts">
	import type { EventRow } from '../../core/documents/rows';
	import { cupboard } from '../../client/cupboard';
	import { attempt } from '../platform/api';
	import EventList from '../trail/EventList.svelte';

	/** What happened to a document; openings and downloads when they are asked for (V5). */
	let {
		document,
		changed,
		code
	}: { document: string; /** Differs when something happened. */ changed: string; code: string } = $props();
	let events = $state<EventRow[]>([]);
	let openings = $state(false);
	$effect(() => {
		void changed;
		const asked = { place: document, ...(openings ? { kind: 'all' as const } : {}) };
		void attempt(async () => {
			const answer = await cupboard.trail(asked);
			if (asked.place === document) events = answer.events;
		});
	});
</script>

<label class="flex items-center gap-2 px-3 py-2 text-ink-2"
	><input type="checkbox" class="accent-act" bind:checked={openings} /> openings and downloads too</label
>
<EventList {events} project={code} />
