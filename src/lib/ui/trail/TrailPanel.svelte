<script lang="ts">
	import type { EventRow } from '../../core/documents/rows';
	import { attempt } from '../platform/api';
	import { EventPages, EVENTS_AT_ONCE } from './event-pages.svelte';
	import EventList from './EventList.svelte';

	/** What happened to one thing, newest first; openings and downloads when they are asked for (V5). */
	let {
		of,
		read,
		changed,
		code
	}: {
		/** Id of what it is about. */
		of: string;
		/** Reads what happened to it, of the kinds asked for, before an entry or up to now. */
		read: (
			of: string,
			page: { kind?: 'all'; before?: number; limit: number }
		) => Promise<{ events: EventRow[] }>;
		/** Another when something may have happened. */
		changed: unknown;
		code: string;
	} = $props();
	let openings = $state(false);
	const list = $derived(`${of} ${openings}`);
	const asked = (before?: number) =>
		attempt(() =>
			read(of, {
				limit: EVENTS_AT_ONCE,
				...(openings ? { kind: 'all' as const } : {}),
				...(before ? { before } : {})
			})
		).then((answer) => answer?.events ?? null);
	const pages = new EventPages(asked);
	$effect(() => {
		void changed;
		const now = list;
		void asked().then((events) => events && now === list && pages.take(events, now));
	});
</script>

<label class="flex items-center gap-2 px-3 py-2 text-ink-2"
	><input type="checkbox" class="accent-act" bind:checked={openings} /> openings and downloads too</label
>
<EventList events={pages.events} project={code} />
{#if !pages.done && pages.events.length}<button class="button m-3" onclick={() => void pages.more()}
		>Show earlier</button
	>{/if}
