<script lang="ts">
	import ReferredBy from '../references/ReferredBy.svelte';
	import Progress from '../kit/Progress.svelte';
	import Select from '../kit/Select.svelte';
	import { page } from '$app/state';
	import { toast } from '../kit/toast';
	import { onDestroy, onMount } from 'svelte';
	import { baseSentence, type Base } from '../../core/versions/base';
	import { cupboard } from '../../client/cupboard';
	import { CallError } from '../../client/call';
	import { sentenceOf } from '../platform/api';
	import Dialog from '../kit/Dialog.svelte';
	import Field from '../kit/Field.svelte';
	import FileField from '../kit/FileField.svelte';
	import Form from '../kit/Form.svelte';
	import { queue, type Sending } from '../adding/sending.svelte';
	import { sizeText } from '../platform/words';

	/**
	 * Hands in a new version with a note, or saves one and keeps the lock. Without the lock (`labels` given) the file is
	 * kept beside the line. When others stored versions since the last that one is known to have had, one says what the
	 * file was made from before it is sent (L5); what looks wrong with it is said before it is handed in.
	 */
	let {
		open = $bindable(false),
		document,
		number,
		newest,
		code,
		project,
		labels = null,
		done
	}: {
		open: boolean;
		document: string;
		number: string;
		/** Label of the newest version. */
		newest: string;
		/** Code of the project as addresses have it. */
		code: string;
		project: string;
		/** The versions it may have been made from, newest first; null hands in on the line. */
		labels?: string[] | null;
		done: () => void;
	} = $props();
	let file = $state.raw<File>();
	let note = $state('');
	let sending = $state<Sending | null>(null);
	let base = $state('');
	/** What one is known to have had, and what others stored since. */
	let known = $state<Base | null>(null);
	/** What one says of it: made from the newest after all, or to be kept beside. */
	let answer = $state<'newest' | 'beside' | ''>('');
	const told = $derived(known && !labels ? baseSentence(known) : null);
	let warnings = $state<string[]>([]);
	/** What was sent and warned about; handing in again means it. */
	let received = $state<string | null>(null);

	onMount(async () => {
		// Without the answer one is told when it is handed in.
		known = await cupboard.handInBase({ document }).catch(() => null);
	});

	/** The dialog was closed while the file was on its way: what comes of it is said beside the page. */
	let gone = false;
	onDestroy(() => (gone = true));

	function again() {
		received = null;
		warnings = [];
	}
	/** Where the dialog was closed meanwhile, what comes of it is said beside the page. */
	async function send(keepLock: boolean) {
		if (!file) return;
		try {
			if (!received) {
				sending = queue.send({ code: project, keepPosition: page.data.frame.project.keepPosition }, file);
				received = await sending.done;
				({ warnings } = await cupboard.handInCheck({ document, upload: received }));
				if (warnings.length) {
					if (gone)
						toast(`${number} is not handed in yet: ${warnings.join(' ')}`, {
							stays: true,
							button: { word: 'Hand in all the same', act: () => void send(keepLock).catch(() => {}) }
						});
					return;
				}
			}
			const made = await cupboard.handIn({
				document,
				upload: received,
				note,
				keepLock,
				...(base ? { base } : {}),
				...(told && answer === 'newest' ? { base: known!.since.at(-1)!.label } : {}),
				beside: answer === 'beside'
			});
			if (made.kept === 'beside') toast.success(`Kept as side version ${made.side}, beside the line.`);
			else if (made.kept === 'as-it-was')
				toast(
					`These are the very bytes of ${made.label}: no new version was made${keepLock ? '' : ', and the lock is given back'}.`
				);
			else if (gone) toast.success(`${number} is handed in as ${made.label}.`);
			if (!gone) open = false;
			done();
		} catch (error) {
			if (gone) toast.error(`${number} was not handed in. ${sentenceOf(error)}`, { stays: true });
			// Others stored something while the dialog was open.
			if (error instanceof CallError && error.code === 'stale-base') {
				const { base: label, since } = error.facts as { base: string | null; since: Base['since'] };
				[known, answer] = [{ label, since }, ''];
			}
			throw error;
		} finally {
			sending = null;
		}
	}
</script>

<Dialog bind:open title="{labels ? 'Hand in beside' : 'Hand in'} {number}">
	<Form
		act={(pressed) => send(pressed === 'keep')}
		button={warnings.length
			? 'Hand in all the same'
			: labels || answer === 'beside'
				? 'Hand in beside'
				: 'Hand in'}
	>
		{#if labels}<p class="text-ink-2">
				You do not have this in hand. Your file overwrites nothing: it is kept as a side version until
				somebody merges or drops it.
			</p>{/if}
		<FileField label="The file you worked on" bind:file chosen={again} required />
		{#if told}<fieldset class="border-l-4 border-lock bg-lock-soft px-3 py-1.5">
				<legend class="sr-only">What your file was made from</legend>
				<p>
					{told}
					{#if known?.label}<a
							class="link"
							href="/{code}/document/{document}/compare?from={known.label}&to={newest}"
							target="_blank">Compare {known.label} with {newest}</a
						>{:else}<a class="link" href="/{code}/document/{document}" target="_blank">Look at {newest}</a
						>{/if}
				</p>
				<label class="mt-1 flex items-start gap-2"
					><input
						type="radio"
						class="mt-0.5 accent-act"
						name="made-from"
						value="newest"
						bind:group={answer}
						required
					/>My file is made from {newest}, and nothing in it is missing</label
				>
				<label class="flex items-start gap-2"
					><input
						type="radio"
						class="mt-0.5 accent-act"
						name="made-from"
						value="beside"
						bind:group={answer}
					/>Keep it beside the line, to be compared and merged; the lock stays</label
				>
			</fieldset>{/if}
		{#if labels}<label class="block"
				><span class="label">Made from</span><Select
					choices={[
						{ value: '', label: known?.label ? `${known.label}, the last I had` : 'I do not know' },
						...labels.map((label) => ({ value: label, label: label }))
					]}
					bind:value={base}
				/></label
			>{/if}
		<Field label="What changed" name="note" lines={3} required bind:value={note} />
		{#if sending && file}<p class="text-ink-2" role="status">
				{sizeText(sending.sent)} of {sizeText(file.size)}<Progress
					label="Sent of {file.name}"
					value={sending.sent}
					max={file.size}
				/>
			</p>{/if}
		{#if warnings.length}<div role="alert" class="border-l-4 border-lock bg-lock-soft px-3 py-1.5">
				{#each warnings as warning (warning)}<p>{warning}</p>{/each}
				<p class="mt-1 font-semibold">The file was received. Hand in all the same, or choose another file.</p>
			</div>{/if}
		{#snippet more(busy)}
			{#if !labels && answer !== 'beside'}<button class="button" value="keep" disabled={busy}
					>Save and keep lock</button
				>{/if}
		{/snippet}
	</Form>
	<!-- It comes a moment later, and moves nothing that is about to be pressed. -->
	{#if !labels}<div class="mt-3"><ReferredBy {document} /></div>{/if}
</Dialog>
