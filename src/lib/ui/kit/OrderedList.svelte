<script lang="ts" generics="One extends { id: string; name: string; title?: string }">
	import GripVertical from '@lucide/svelte/icons/grip-vertical';
	import type { Snippet } from 'svelte';
	import Narrowed from './Narrowed.svelte';
	import { dragHandle, dragHandleZone, SHADOW_ITEM_MARKER_PROPERTY_NAME } from 'svelte-dnd-action';

	/**
	 * A list that one puts in order: by its handles with mouse or finger, with the arrow keys on a handle (Home and End take
	 * to its ends), or by typing the place of a row. Of a long one some are shown at a time: those are put in their place
	 * among all by keys and by typing, since nothing can be dragged past what is not there.
	 */
	let {
		label,
		items = $bindable(),
		row
	}: { label: string; items: One[]; row: Snippet<[One, number]> } = $props();

	let said = $state('');
	let list = $state<HTMLElement>();

	function move(from: number, to: number) {
		if (to < 0 || to >= items.length || to === from) return;
		const one = items[from]!;
		items = items.toSpliced(from, 1).toSpliced(to, 0, one);
		said = `${one.name} is number ${to + 1} of ${items.length}.`;
		// The row keeps its handle; the focus goes with it once the rows stand anew.
		requestAnimationFrame(() => list?.querySelector<HTMLElement>(`[data-handle="${to}"]`)?.focus());
	}

	/** Takes a row to the place that is typed; beyond its ends is at them, and what is no place changes nothing. */
	function place(at: number, field: HTMLInputElement) {
		const typed = /^\s*\d+\s*$/.test(field.value) ? Number(field.value) : at + 1;
		const to = Math.min(Math.max(typed, 1), items.length) - 1;
		field.value = String(at + 1);
		move(at, to);
	}

	const TO: Record<string, (at: number) => number> = {
		ArrowUp: (at) => at - 1,
		ArrowDown: (at) => at + 1,
		Home: () => 0,
		End: () => items.length - 1
	};
	/** Heard before what is beneath hears it, which has a way of its own with keys. */
	function onkeydowncapture(event: KeyboardEvent) {
		const handle = (event.target as HTMLElement).closest<HTMLElement>('[data-handle]');
		if (!handle || event.key === 'Tab' || event.key === 'Escape') return;
		event.stopPropagation();
		const to = TO[event.key];
		if (!to) return;
		event.preventDefault();
		const at = Number(handle.dataset.handle);
		move(at, to(at));
	}
	const stands = ({ detail }: CustomEvent<{ items: One[] }>) => (items = detail.items);
</script>

<Narrowed {label} {items}>
	{#snippet children(shown, whole)}
		<ol
			bind:this={list}
			aria-label={label}
			class="border border-rule bg-sheet"
			use:dragHandleZone={{
				items: shown.map(({ one }) => one),
				type: label,
				dragDisabled: !whole,
				autoAriaDisabled: true,
				zoneTabIndex: -1,
				dropTargetStyle: {}
			}}
			onconsider={stands}
			onfinalize={stands}
			{onkeydowncapture}
		>
			{#each shown as { one, at } (one.id)}
				<li
					class="flex items-center gap-2 border-b border-rule-2 bg-sheet py-1 pr-2 last:border-b-0"
					data-is-dnd-shadow-item-hint={(one as Record<string, unknown>)[SHADOW_ITEM_MARKER_PROPERTY_NAME]}
				>
					<button
						type="button"
						use:dragHandle
						data-handle={at}
						class="grid h-7 w-7 shrink-0 place-items-center text-ink-2 hover:text-ink max-sm:h-10 max-sm:w-10"
						aria-label="Move {one.name}"
						title={whole ? 'Drag it, or press the arrow keys' : 'Press the arrow keys'}
						><GripVertical size={15} /></button
					>
					<input
						class="h-7 w-11 shrink-0 rounded-sm border border-transparent bg-transparent px-1 text-right font-mono text-[12px] text-ink-2 hover:border-rule focus:border-ink-2 max-sm:h-10"
						data-aside
						inputmode="numeric"
						aria-label="Place of {one.name}"
						value={at + 1}
						onfocus={(event) => event.currentTarget.select()}
						onkeydown={(event) => {
							if (event.key !== 'Enter') return;
							event.preventDefault();
							event.currentTarget.blur();
						}}
						onchange={(event) => place(at, event.currentTarget)}
					/>
					{@render row(one, at)}
				</li>
			{/each}
		</ol>
	{/snippet}
</Narrowed>
<p class="sr-only" role="status">{said}</p>
