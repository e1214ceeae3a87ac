<script lang="ts">
	import type { EventRow } from '../../core/documents/rows';
	import { attempt } from '../platform/api';
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
	/** So many entries at a time. */
	const MOST = 80;
	let events = $state.raw<EventRow[]>([]);
	let more = $state(false);
	let openings = $state(false);
	async function load(before?: number) {
		const asked = { of, openings };
		const page = {
			limit: MOST,
			...(openings ? { kind: 'all' as const } : {}),
			...(before ? { before } : {})
		};
		await attempt(async () => {
			const answer = await read(of, page);
			if (asked.of !== of || asked.openings !== openings) return;
			events = before ? [...events, ...answer.events] : answer.events;
			more = answer.events.length === MOST;
		});
	}
	$effect(() => {
		void changed;
		void load();
	});
</script>

<label class="flex items-center gap-2 px-3 py-2 text-ink-2"
	><input type="checkbox" class="accent-act" bind:checked={openings} /> openings and downloads too</label
>
<EventList {events} project={code} />
{#if more}<button class="button m-3" onclick={() => void load(events.at(-1)!.seq)}>Show earlier</button>{/if}
