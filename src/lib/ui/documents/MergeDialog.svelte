<script lang="ts">
	import { onMount } from 'svelte';
	import { toast } from '../kit/toast';
	import { mergeTexts, settledText, type Choice, type MergePart } from '../../core/versions/merge';
	import type { SideRow } from '../../core/documents/rows';
	import { addressOf, cupboard } from '../../client/cupboard';
	import { sendFile, sentenceOf, uploadAddress } from '../platform/api';
	import Dialog from '../kit/Dialog.svelte';
	import { plural } from '../platform/words';

	/** Merges a side version of a text with the newest version, and hands the result in; conflicts are settled by hand. */
	let {
		side = $bindable(null),
		document,
		newest,
		project,
		done
	}: {
		side: SideRow | null;
		document: string;
		newest: { label: string; fileName: string };
		project: string;
		done: () => void;
	} = $props();

	let parts = $state.raw<MergePart[] | null>(null);
	let choices = $state<(Choice | undefined)[]>([]);
	let fault = $state('');
	let busy = $state(false);
	const conflicts = $derived(parts?.filter((p) => p.kind === 'conflict') ?? []);
	const text = $derived(parts && settledText(parts, choices));
	const left = $derived(conflicts.filter((_, i) => !choices[i]).length);
	/** The place of each conflict among the conflicts. */
	const order = $derived(new Map(conflicts.map((part, i) => [part as MergePart, i])));

	/** Agreed text shown around conflicts; more would hide them. */
	const AROUND = 400;
	const shortened = (agreed: string) =>
		agreed.length > 2 * AROUND ? `${agreed.slice(0, AROUND)}\n…\n${agreed.slice(-AROUND)}` : agreed;
	const WAYS: [Choice, string][] = [
		['newest', 'Newest version'],
		['side', 'Side'],
		['both', 'Both']
	];

	onMount(() => void load(side!));
	async function load(from: SideRow) {
		const read = async (address: string) => {
			const response = await fetch(address);
			if (!response.ok) throw new Error();
			return response.text();
		};
		try {
			const [base, newer, beside] = await Promise.all([
				read(addressOf('versionFile', { document, label: from.base ?? newest.label })),
				read(addressOf('versionFile', { document, label: newest.label })),
				read(addressOf('sideFile', { document, side: from.number }))
			]);
			parts = mergeTexts(base, newer, beside);
		} catch {
			fault = 'The texts could not be read. Try again.';
		}
	}
	async function handIn() {
		busy = true;
		fault = '';
		try {
			const file = new File([text!], newest.fileName);
			const { upload } = await sendFile(uploadAddress(project, newest.fileName), file, () => {}).done;
			const made = await cupboard.mergeSide({ document, side: side!.number, upload });
			toast.success(`Side version ${side!.number} is merged as ${made.label}; you still have it in hand.`);
			side = null;
			done();
		} catch (error) {
			fault = sentenceOf(error);
		}
		busy = false;
	}
</script>

<Dialog
	bind:open={() => side !== null, (open) => !open && (side = null)}
	title="Merge side version {side?.number} with {newest.label}"
	wide
>
	<p class="mb-2 text-ink-2">
		Both began from {side?.base ?? newest.label}.
		{#if parts}{conflicts.length
				? `${plural(conflicts.length, 'place')} ${conflicts.length === 1 ? 'was' : 'were'} changed by both; choose for each.`
				: 'They changed different places, so nothing has to be chosen.'}{:else if !fault}Reading the texts…{/if}
	</p>
	{#if parts}
		<div class="max-h-[56vh] overflow-auto border border-rule bg-sheet p-3 text-[13px] leading-relaxed">
			{#each parts as part, i (i)}
				{#if part.kind === 'agreed'}<span class="whitespace-pre-wrap">{shortened(part.text)}</span>
				{:else}
					{@const at = order.get(part)!}
					<fieldset
						class="my-1.5 border-l-4 {choices[at] ? 'border-done' : 'border-lock'} bg-film px-2 py-1.5"
					>
						<legend class="sr-only">Place {at + 1} changed by both</legend>
						<p>
							<b class="mr-2 font-mono text-[11px]">newest</b><span class="whitespace-pre-wrap"
								>{part.newest || '(taken away)'}</span
							>
						</p>
						<p>
							<b class="mr-2 font-mono text-[11px]">side</b><span class="whitespace-pre-wrap"
								>{part.side || '(taken away)'}</span
							>
						</p>
						<div class="mt-1 flex gap-4">
							{#each WAYS as [way, name] (way)}<label class="flex items-center gap-1"
									><input
										type="radio"
										name="place-{at}"
										class="accent-act"
										checked={choices[at] === way}
										onchange={() => (choices[at] = way)}
									/>{name}</label
								>{/each}
						</div>
					</fieldset>
				{/if}
			{/each}
		</div>
	{/if}
	{#if fault}<p role="alert" class="mt-2 text-fault">{fault}</p>{/if}
	<div class="mt-3 flex items-center justify-end gap-2">
		{#if left}<p class="mr-auto text-ink-2">{plural(left, 'place')} to choose yet</p>{/if}
		<button class="button" onclick={() => (side = null)}>Cancel</button>
		<button class="button button-act" disabled={text === null || busy} onclick={handIn}
			>Hand in as next version</button
		>
	</div>
</Dialog>
