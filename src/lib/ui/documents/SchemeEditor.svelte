<script lang="ts">
	import Form from '../kit/Form.svelte';
	import Select from '../kit/Select.svelte';
	import { refreshAll } from '../platform/refresh';
	import { toast } from '../kit/toast';
	import {
		checkScheme,
		EXAMPLE_SCHEMES,
		exampleOf,
		parse,
		PURPOSE_LABEL,
		PURPOSES,
		type RevisionScheme
	} from '../../core/revisions/revisions';
	import { cupboard } from '../../client/cupboard';
	import Revision from './Revision.svelte';

	/** The revision scheme of a project, with what comes next in it. */
	let { project, scheme }: { project: string; scheme: RevisionScheme } = $props();
	// svelte-ignore state_referenced_locally
	let draft = $state<RevisionScheme>(structuredClone($state.snapshot(scheme) as RevisionScheme));
	const wrong = $derived(checkScheme($state.snapshot(draft) as RevisionScheme));
	const example = $derived(wrong ? [] : exampleOf($state.snapshot(draft) as RevisionScheme));

	async function submit() {
		await cupboard.changeRevisionScheme({ project, ...$state.snapshot(draft) });
		toast('The revision scheme is changed.');
		await refreshAll();
	}
	function begin(from: string) {
		draft = structuredClone(EXAMPLE_SCHEMES.find((one) => one.key === from)!.scheme);
	}
	const issued = (text: string) => parse(draft, text)?.save === null;
</script>

<div class="max-w-[720px] border border-ink bg-sheet p-4">
	<Form act={submit} button="Change the scheme" disabled={wrong !== null} onPage>
		<div class="flex flex-wrap items-center gap-x-4 gap-y-1">
			<h2 class="text-[16px]">Revisions</h2>
			<Select
				label="Begin from an example"
				placeholder="Begin from an example"
				class="ml-auto w-[230px]"
				choices={EXAMPLE_SCHEMES.map(({ key, label }) => ({ value: key, label }))}
				value=""
				choose={begin}
			/>
		</div>
		<table class="w-full">
			<thead class="text-left text-[12px] text-ink-2"
				><tr><th class="py-1">Begins with</th><th>Stands for</th><th>Digits</th><th></th></tr></thead
			>
			<tbody>
				{#each draft.sequences as sequence, i (i)}
					<tr>
						<td class="pr-2 pb-1"
							><input
								class="field w-[84px] font-mono"
								aria-label="Beginning of sequence {i + 1}"
								bind:value={sequence.prefix}
								maxlength="4"
							/></td
						>
						<td class="pr-2 pb-1"
							><input
								class="field"
								aria-label="Meaning of sequence {i + 1}"
								bind:value={sequence.name}
								maxlength="60"
							/></td
						>
						<td class="pr-2 pb-1"
							><input
								class="field w-[70px]"
								type="number"
								min="1"
								max="4"
								aria-label="Digits of sequence {i + 1}"
								bind:value={sequence.digits}
							/></td
						>
						<td class="pb-1 text-right"
							><button
								type="button"
								class="link text-[12px]"
								disabled={draft.sequences.length === 1}
								onclick={() => draft.sequences.splice(i, 1)}>Delete</button
							></td
						>
					</tr>
				{/each}
			</tbody>
		</table>
		<button
			type="button"
			class="button"
			disabled={draft.sequences.length >= 8}
			onclick={() => draft.sequences.push({ prefix: '', name: '', digits: 2 })}>Add a sequence</button
		>
		<fieldset class="grid grid-cols-[160px_120px] items-center justify-start gap-x-4 gap-y-1">
			<legend class="mb-1 font-semibold">Which a purpose demands</legend>
			{#each PURPOSES as purpose (purpose)}
				<label for="demand-{purpose}">{PURPOSE_LABEL[purpose]}</label>
				<Select
					id="demand-{purpose}"
					choices={draft.sequences.map((s) => ({ value: s.prefix, label: s.prefix }))}
					bind:value={draft.demands[purpose]}
				/>
			{/each}
		</fieldset>
		<div>
			<p class="mb-1 font-semibold">What comes in turn</p>
			{#if wrong}<p class="text-fault">{wrong}</p>
			{:else}<p class="flex flex-wrap items-center gap-1.5">
					{#each example as text (text)}<Revision label={text} issued={issued(text)} />{/each}
					<span class="text-ink-2">and so on</span>
				</p>{/if}
		</div>
	</Form>
</div>
