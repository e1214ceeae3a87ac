<script lang="ts">
	import type { DocumentRow } from '../../core/documents/rows';
	import { safeAddress } from '../../core/text/schema';
	import { cupboard } from '../../client/cupboard';
	import { attempt } from '../platform/api';
	import Dialog from '../kit/Dialog.svelte';
	import Field from '../kit/Field.svelte';
	import Form from '../kit/Form.svelte';

	/** Chooses what a link leads to: another document of the project, found by number or words, or an address. */
	let {
		open = $bindable(false),
		project,
		toDocument,
		toAddress
	}: {
		open: boolean;
		project: string;
		toDocument: (id: string, number: string) => void;
		toAddress: (href: string) => void;
	} = $props();

	let typed = $state('');
	let found = $state.raw<DocumentRow[]>([]);
	const address = $derived(safeAddress(typed.trim()));
	$effect(() => {
		const words = typed.trim();
		if (words.length < 2 || address) return void (found = []);
		const wait = setTimeout(async () => {
			const answer = await attempt(() => cupboard.find({ project, q: words }));
			if (words === typed.trim()) found = (answer?.rows ?? []).slice(0, 12);
		}, 200);
		return () => clearTimeout(wait);
	});
	function finish(doing: () => void) {
		open = false;
		doing();
	}
</script>

<Dialog bind:open title="Link to a document or an address">
	<Form
		act={async () => {
			const [first] = found;
			if (address) finish(() => toAddress(typed.trim()));
			else if (first) finish(() => toDocument(first.id, first.number));
		}}
		button={address || !found[0] ? 'Link to this address' : `Link to ${found[0].number}`}
		cancel={() => (open = false)}
		disabled={!address && !found[0]}
	>
		<Field
			label="Number or words of a document, or an address that begins with https://"
			name="href"
			bind:value={typed}
		/>
		{#if !address}<ul>
				{#each found as row (row.id)}<li class="border-b border-rule-2">
						<button
							type="button"
							class="flex w-full gap-2 py-1.5 text-left hover:bg-act-soft"
							onclick={() => finish(() => toDocument(row.id, row.number))}
							><span class="font-mono text-[12px]">{row.number}</span><span class="truncate">{row.title}</span
							></button
						>
					</li>{:else}{#if typed.trim().length > 1}<li class="text-ink-2">
							Nothing found so far.
						</li>{/if}{/each}
			</ul>{/if}
	</Form>
</Dialog>
