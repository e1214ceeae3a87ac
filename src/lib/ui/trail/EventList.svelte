<script lang="ts">
	import { page } from '$app/state';
	import type { EventRow } from '../../core/documents/rows';
	import { eventText, initials, timeText, dayText } from '../platform/words';
	import { releaseNumber } from '../../core/releases';

	/** Events newest first, by day; each leads to its place, and what was removed can be restored from here. */
	let {
		events,
		project,
		restore = null
	}: { events: readonly EventRow[]; project: string; restore?: ((place: string) => void) | null } = $props();

	/** Where it leads; nowhere from the very place. */
	function target(event: EventRow): string | null {
		const to = placeOf(event);
		return to === page.url.pathname ? null : to;
	}
	function placeOf(event: EventRow): string | null {
		if (event.place && !event.place.removed)
			return event.place.kind === 'document'
				? `/${project}/document/${event.place.id}`
				: `/${project}/place/${event.place.id}`;
		if (event.place?.removed) return `/${project}/removed`;
		if (event.release) return `/${project}/releases/${event.release}`;
		return null;
	}
	/** Only the newest removal of a place that is still removed offers its restoring. */
	function restorable(event: EventRow): boolean {
		return event.kind === 'place.removed' && (event.place?.removed ?? false);
	}
</script>

<ol>
	{#each events as event, index (event.seq)}
		{@const day = dayText(event.at)}
		{#if index === 0 || dayText(events[index - 1]!.at) !== day}
			<li class="border-b border-rule bg-film px-3 py-1 text-[12px] font-semibold">{day}</li>
		{/if}
		<li class="flex min-h-8 items-center gap-2.5 border-b border-rule-2 px-3 py-1">
			<span class="w-10 shrink-0 font-mono text-[12px] text-ink-2">{timeText(event.at)}</span>
			<span
				class="grid h-5 w-6 shrink-0 place-items-center rounded-sm bg-rule-2 text-[10px] font-semibold"
				aria-hidden="true">{initials(event.actor)}</span
			>
			<span class="min-w-0 flex-1 break-words"
				><b class="font-semibold">{event.actor}</b> {eventText(event)}</span
			>
			{#if restorable(event) && restore}<button
					class="link text-[12px]"
					onclick={() => restore(event.place!.id)}>Restore</button
				>{/if}
			{#if target(event)}
				<a class="link shrink-0 text-[12px]" href={target(event)}
					>{event.place
						? event.place.removed
							? 'Removed'
							: event.place.kind === 'document'
								? 'Document'
								: 'Folder'
						: `Release ${releaseNumber(event.release!)}`}</a
				>
			{/if}
		</li>
	{/each}
</ol>
