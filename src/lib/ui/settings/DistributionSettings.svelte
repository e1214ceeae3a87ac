<script lang="ts">
	import { onMount, untrack } from 'svelte';
	import {
		EXPECTS,
		EXPECTS_LABEL,
		MOST_RULES,
		PROOF_LABEL,
		PROOFS,
		ruleWords,
		type DistributionRule,
		type Expects,
		type ProofAsked
	} from '../../core/releases';
	import { PURPOSE_LABEL, PURPOSES, type Purpose } from '../../core/revisions/revisions';
	import { cupboard, type AnswerOf } from '../../client/cupboard';
	import { attempt } from '../platform/api';
	import Select from '../kit/Select.svelte';
	import SettingsForm from './SettingsForm.svelte';

	/** Who gets releases by rule: by department, zone, type and purpose. */
	let { project, more }: { project: AnswerOf<'projectFrame'>['project']; more: AnswerOf<'settings'> } =
		$props();
	let rules = $state.raw<DistributionRule[]>(untrack(() => more.distribution));
	let people = $state.raw<AnswerOf<'people'>['recipients']>([]);
	onMount(() => {
		void attempt(async () => {
			people = (await cupboard.people({ project: project.id })).recipients;
		});
	});
	const change = (at: number, to: Partial<DistributionRule>) =>
		(rules = rules.map((one, i) => (i === at ? { ...one, ...to } : one)));
	const add = () =>
		(rules = [
			...rules,
			{
				recipient: '',
				expects: 'verdicts',
				asks: 'nothing',
				purposes: [],
				departments: [],
				zones: [],
				types: []
			}
		]);
	const nameOf = (id: string) => people.find((one) => one.id === id)?.name ?? 'nobody yet';
	const codesIn = (typed: string) => [
		...new Set(
			typed
				.toUpperCase()
				.split(/[\s,;]+/)
				.filter(Boolean)
		)
	];
	const toggled = (of: readonly Purpose[], one: Purpose) =>
		PURPOSES.filter((purpose) => (purpose === one ? !of.includes(one) : of.includes(purpose)));
	const wrong = $derived(rules.some((one) => !one.recipient) ? 'Choose who gets it.' : '');
	const CODES = [
		['departments', 'Departments', 'any, or ST, AR'],
		['zones', 'Zones', 'any'],
		['types', 'Types', 'any, or DR']
	] as const;
</script>

<SettingsForm
	project={project.id}
	title="Distribution list"
	button="Change the distribution list"
	change={{
		distribution: rules.map((one) => ({
			...one,
			purposes: [...one.purposes],
			departments: [...one.departments],
			zones: [...one.zones],
			types: [...one.types]
		}))
	}}
	{wrong}
>
	<p class="text-ink-2">
		A rule says who gets which documents of a release. A new release is proposed those whose rules fit it,
		each with what is theirs; whoever builds it can choose others. Releases that are built already keep
		theirs.
	</p>
	{#each rules as one, at (at)}
		<section class="border-t border-rule pt-3" aria-label="Rule {at + 1}">
			<div class="mb-2 flex flex-wrap items-end gap-2">
				<div>
					<span class="cell-label block">Who gets it</span><Select
						label="Who gets it by rule {at + 1}"
						choices={people.map(({ id, name, company }) => ({ value: id, label: name, hint: company }))}
						value={one.recipient}
						choose={(recipient) => change(at, { recipient })}
						placeholder="who gets it"
						class="!w-[185px]"
					/>
				</div>
				<div>
					<span class="cell-label block">Asked of them</span><Select
						label="What is asked by rule {at + 1}"
						choices={EXPECTS.map((value) => ({ value, label: EXPECTS_LABEL[value] }))}
						value={one.expects}
						choose={(to) => change(at, { expects: to as Expects })}
						class="!w-[135px]"
					/>
				</div>
				<div>
					<span class="cell-label block">Their pass asks for</span><Select
						label="What the pass asks for by rule {at + 1}"
						choices={PROOFS.map((value) => ({ value, label: PROOF_LABEL[value] }))}
						value={one.asks}
						choose={(to) => change(at, { asks: to as ProofAsked })}
						class="!w-[190px]"
					/>
				</div>
				<button
					type="button"
					class="link ml-auto text-[12px]"
					onclick={() => (rules = rules.filter((_, i) => i !== at))}>Delete rule {at + 1}</button
				>
			</div>
			<div class="mb-2 flex flex-wrap gap-1.5" role="group" aria-label="Purposes of rule {at + 1}">
				{#each PURPOSES as purpose (purpose)}<button
						type="button"
						class="button {one.purposes.includes(purpose) ? '!border-act !bg-act-soft' : ''}"
						aria-pressed={one.purposes.includes(purpose)}
						onclick={() => change(at, { purposes: toggled(one.purposes, purpose) })}
						>{PURPOSE_LABEL[purpose]}</button
					>{/each}
			</div>
			<div class="grid gap-2 sm:grid-cols-3">
				{#each CODES as [key, label, placeholder] (key)}<label class="block"
						><span class="label">{label}</span><input
							class="field font-mono"
							aria-label="{label} of rule {at + 1}"
							value={one[key].join(', ')}
							{placeholder}
							onchange={(e) => change(at, { [key]: codesIn(e.currentTarget.value) })}
						/></label
					>{/each}
			</div>
			<p class="mt-1.5 text-[12px] text-ink-2">
				{nameOf(one.recipient)} gets {ruleWords(one)}{one.purposes.length
					? `, ${one.purposes.map((purpose) => PURPOSE_LABEL[purpose].toLowerCase()).join(' or ')}`
					: ', for any purpose'}.
			</p>
		</section>
	{:else}<p>No rule yet. Each release says for itself who gets it.</p>{/each}
	{#if rules.length < MOST_RULES}<button type="button" class="button" onclick={add}>Add a rule</button>{/if}
</SettingsForm>
