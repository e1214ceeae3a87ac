<script lang="ts">
	import { SvelteMap } from 'svelte/reactivity';
	import { cupboard, type AnswerOf } from '../../client/cupboard';
	import { releaseNumber } from '../../core/releases';
	import Dialog from '../kit/Dialog.svelte';
	import Field from '../kit/Field.svelte';
	import Form from '../kit/Form.svelte';
	import Narrowed from '../kit/Narrowed.svelte';
	import { plural } from '../platform/words';

	/** Sends a release back: why, and what is wrong with which of its documents. */
	let {
		open = $bindable(false),
		release,
		items,
		changed
	}: {
		open: boolean;
		release: AnswerOf<'releaseView'>['release'];
		items: AnswerOf<'releaseView'>['items'];
		changed: () => Promise<void>;
	} = $props();

	const documents = $derived(items.map(({ documentId: id, number: name, title }) => ({ id, name, title })));
	let reason = $state('');
	/** What is wrong with a document, by its id; what is left empty says nothing. */
	const wrong = new SvelteMap<string, string>();

	const named = $derived(
		[...wrong].flatMap(([document, said]) => (said.trim() ? [{ document, reason: said.trim() }] : []))
	);

	async function submit() {
		await cupboard.sendBack({ release: release.id, reason, documents: named });
		open = false;
		await changed();
	}
</script>

<Dialog bind:open title="Send release {releaseNumber(release.number)} back?" wide>
	<Form act={submit} button="Send back" cancel={() => (open = false)}>
		<p>The build opens again for {release.builtBy}, who is told why.</p>
		<Field label="Reason" name="reason" bind:value={reason} lines={2} required />
		<fieldset>
			<legend class="label">What is wrong with which document, where it is one of them</legend>
			<Narrowed label="the documents" items={documents}>
				{#snippet children(shown)}
					<ul class="max-h-[44vh] divide-y divide-rule-2 overflow-auto border border-rule">
						{#each shown as { one: item } (item.id)}<li
								class="grid items-center gap-x-3 gap-y-1 px-2.5 py-1.5 sm:grid-cols-[2fr_3fr]"
							>
								<span class="min-w-0"
									><span class="block truncate font-semibold">{item.title}</span><span
										class="font-mono text-[12px] text-ink-2">{item.name}</span
									></span
								>
								<input
									class="field"
									aria-label="What is wrong with {item.name}"
									maxlength={2000}
									value={wrong.get(item.id) ?? ''}
									oninput={(event) => wrong.set(item.id, event.currentTarget.value)}
								/>
							</li>{/each}
					</ul>
				{/snippet}
			</Narrowed>
			<!-- Who looks for another does not see what they said before. -->
			{#if named.length}<p class="mt-1 text-[12px] text-ink-2">
					Something is wrong with {plural(named.length, 'document')}.
				</p>{/if}
		</fieldset>
	</Form>
</Dialog>
