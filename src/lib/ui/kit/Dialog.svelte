<script lang="ts">
	import { Dialog } from 'bits-ui';
	import XIcon from '@lucide/svelte/icons/x';
	import type { Snippet } from 'svelte';

	/**
	 * A dialog over the page: title, what it says, and its own buttons at the end. It hangs from the top, so that what
	 * is said in it a moment later moves nothing that somebody is about to press above it.
	 */
	let {
		open = $bindable(false),
		title,
		wide = false,
		children
	}: { open: boolean; title: string; wide?: boolean; children: Snippet } = $props();
	let body = $state<HTMLElement>();

	/**
	 * Whoever opens a dialog that asks for words can type at once; otherwise the first button takes the focus. A field that
	 * stands aside (`data-aside`) is none that a dialog is opened for.
	 */
	function focusFirst(event: Event) {
		const field = body?.querySelector<HTMLElement>(
			'input:not([type=file], [type=radio], [type=checkbox], [readonly], [data-aside], :disabled), textarea:not([readonly], :disabled)'
		);
		if (!field) return;
		event.preventDefault();
		field.focus();
	}
</script>

<Dialog.Root bind:open>
	<Dialog.Portal>
		<Dialog.Overlay class="fixed inset-0 z-40 bg-[#0b1c1866]" />
		<Dialog.Content
			onOpenAutoFocus={focusFirst}
			class="fixed top-[8vh] left-1/2 z-50 flex max-h-[88vh] w-[94vw] -translate-x-1/2 flex-col rounded-md border border-ink bg-sheet shadow-xl {wide
				? 'max-w-[1040px]'
				: 'max-w-[520px]'}"
		>
			<div class="flex items-center justify-between border-b border-rule px-4 py-2.5">
				<Dialog.Title class="text-[15px] font-semibold">{title}</Dialog.Title>
				<Dialog.Close class="rounded-sm p-1 text-ink-2 hover:text-ink" aria-label="Close"
					><XIcon size={16} /></Dialog.Close
				>
			</div>
			<div class="min-h-0 scroll-pb-16 overflow-auto px-4 py-3" bind:this={body}>{@render children()}</div>
		</Dialog.Content>
	</Dialog.Portal>
</Dialog.Root>
