<script lang="ts">
	import { setContext, type Snippet } from 'svelte';
	import { CallError } from '../../client/call';
	import { sentenceOf } from '../platform/api';
	import { FORM_FAULTS, type FormFaults } from './form';

	/**
	 * A form that does one thing: sends once however often it is pressed, says at its field what is wrong there and
	 * below what is wrong otherwise, and keeps what was typed. Its footer is its button, and Cancel where it can be left.
	 */
	let {
		act,
		done,
		button,
		cancel,
		dangerous = false,
		quiet = false,
		onPage = false,
		onSite = false,
		disabled = false,
		refused,
		more,
		children
	}: {
		/** Told the value of the button that was pressed, if one of `more` sends it in another way. */
		act: (pressed: string) => Promise<unknown>;
		/** Called when it was done. */
		done?: () => unknown;
		/** Verb and object. */
		button: string;
		/** Leaves the form. */
		cancel?: () => void;
		dangerous?: boolean;
		/** One of several: its button is a plain one. */
		quiet?: boolean;
		/** It stands on a page instead of in a dialog: its button is at the left. */
		onPage?: boolean;
		/** It is filled in on a phone, outside: its button is as wide as the page. */
		onSite?: boolean;
		/** Whether something is missing without which it cannot be sent. */
		disabled?: boolean;
		/** Told what it was refused with. */
		refused?: (error: unknown) => void;
		/** What stands beside its own button; told whether it is being sent. */
		more?: Snippet<[boolean]>;
		children: Snippet;
	} = $props();

	let busy = $state(false);
	let fault = $state('');
	let form = $state<HTMLFormElement>();
	const faults = $state<FormFaults>({ at: {} });
	setContext(FORM_FAULTS, faults);

	async function submit(event: SubmitEvent) {
		event.preventDefault();
		if (busy) return;
		busy = true;
		fault = '';
		faults.at = {};
		try {
			const by = event.submitter;
			await act(by instanceof HTMLButtonElement ? by.value : '');
			await done?.();
		} catch (error) {
			refused?.(error);
			const field = error instanceof CallError && error.facts.field;
			const at =
				typeof field === 'string' ? form?.querySelector<HTMLElement>(`[data-field="${field}"]`) : null;
			if (at) {
				faults.at = { [field as string]: sentenceOf(error) };
				at.querySelector<HTMLElement>('input, textarea, button')?.focus();
			} else fault = sentenceOf(error);
		} finally {
			busy = false;
		}
	}
</script>

<form bind:this={form} onsubmit={submit} class="space-y-3">
	{@render children()}
	{#if fault}<p role="alert" class="text-fault">{fault}</p>{/if}
	<!-- In a dialog that is higher than the screen the buttons stay in sight, over what is scrolled. -->
	<div
		class="flex gap-2 print:hidden {onPage ? '' : 'sticky -bottom-3 z-20 -my-3 justify-end bg-sheet py-3'}"
	>
		{#if cancel}<button type="button" class="button" onclick={cancel}>Cancel</button>{/if}
		{@render more?.(busy)}
		<button
			class="button {dangerous ? 'button-fault' : quiet ? '' : 'button-act'} {onSite
				? 'min-h-[52px] w-full justify-center'
				: ''}"
			disabled={busy || disabled}>{button}</button
		>
	</div>
</form>
