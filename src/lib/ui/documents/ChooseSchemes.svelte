<script lang="ts">
	import { exampleRules } from '../../core/numbering/examples';
	import type { NumberingRule } from '../../core/numbering/numbering';
	import { examplesOf } from '../../core/numbering/rule';
	import { EXAMPLE_SCHEMES, exampleOf, parse, type RevisionScheme } from '../../core/revisions/revisions';
	import { cupboard } from '../../client/cupboard';
	import Dialog from '../kit/Dialog.svelte';
	import Form from '../kit/Form.svelte';
	import Revision from './Revision.svelte';

	/** How a new project numbers its documents and their revisions, chosen from examples that show what they make. */
	let {
		open = $bindable(false),
		project,
		code,
		numbering,
		revisions,
		settings,
		done
	}: {
		open: boolean;
		project: string;
		code: string;
		numbering: NumberingRule;
		revisions: RevisionScheme;
		/** Address of the settings, where both are written part by part. */
		settings: string;
		done: () => Promise<void>;
	} = $props();

	const departments = $derived(numbering.parts.find((part) => part.key === 'department')?.values ?? []);
	const rules = $derived(exampleRules(code, departments));
	const same = (one: unknown, other: unknown) => JSON.stringify(one) === JSON.stringify(other);
	/** Nothing is chosen where what is there is of nobody's example. */
	const asItIs = <T extends { key: string }>(examples: readonly T[], fits: (one: T) => boolean) =>
		examples.find(fits)?.key ?? '';
	// svelte-ignore state_referenced_locally
	let rule = $state(asItIs(rules, (one) => same(examplesOf(one.rule, 1), examplesOf(numbering, 1))));
	let scheme = $state(asItIs(EXAMPLE_SCHEMES, (one) => same(exampleOf(one.scheme), exampleOf(revisions))));

	async function use() {
		const chosenRule = rules.find((one) => one.key === rule);
		const chosenScheme = EXAMPLE_SCHEMES.find((one) => one.key === scheme);
		if (chosenRule) await cupboard.changeNumbering({ project, rule: chosenRule.rule });
		if (chosenScheme)
			await cupboard.changeRevisionScheme({ project, ...structuredClone(chosenScheme.scheme) });
		open = false;
		await done();
	}
</script>

<Dialog bind:open title="Numbers and revisions">
	<Form act={use} button="Use these" cancel={() => (open = false)}>
		<fieldset>
			<legend class="font-semibold">How documents are numbered</legend>
			{#each rules as one (one.key)}
				<label class="flex items-start gap-2 border-b border-rule-2 py-1.5">
					<input type="radio" class="mt-1 accent-act" name="rule" value={one.key} bind:group={rule} />
					<span
						><b class="block font-semibold">{one.label}</b><span class="font-mono"
							>{examplesOf(one.rule, 1)[0]!.number}</span
						></span
					>
				</label>
			{/each}
		</fieldset>
		<fieldset>
			<legend class="font-semibold">Which revisions there are</legend>
			<p class="text-[12px] text-ink-2">
				Dashed: working saves, counted under the revision that is being prepared. Filled: issued.
			</p>
			{#each EXAMPLE_SCHEMES as one (one.key)}
				<label class="flex items-start gap-2 border-b border-rule-2 py-1.5">
					<input type="radio" class="mt-1 accent-act" name="scheme" value={one.key} bind:group={scheme} />
					<span
						><b class="block font-semibold">{one.label}</b><span class="mt-0.5 flex flex-wrap gap-1"
							>{#each exampleOf(one.scheme) as text (text)}<Revision
									label={text}
									issued={parse(one.scheme, text)?.save === null}
								/>{/each}</span
						></span
					>
				</label>
			{/each}
		</fieldset>
		<p class="text-[12px] text-ink-2">
			Part by part, with codes of your own, they are written in the <a class="link" href={settings}
				>settings</a
			>, now or later.
		</p>
	</Form>
</Dialog>
