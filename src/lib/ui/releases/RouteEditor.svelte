<script lang="ts">
	import X from '@lucide/svelte/icons/x';
	import {
		MOST_APPROVERS,
		MOST_STEP_DAYS,
		MOST_STEPS,
		sameApprover,
		whoWords,
		type Approver,
		type Step
	} from '../../core/releases';
	import { isKnown, type Pickable } from '../kit/person';
	import PersonPicker from '../kit/PersonPicker.svelte';
	import Select from '../kit/Select.svelte';

	/** The steps of a route: who approves, how many of them, and within how many working days. */
	let {
		steps = $bindable(),
		known,
		label = 'Route'
	}: {
		steps: Step[];
		/** Whom a step can name. */
		known: readonly (Pickable & Approver)[];
		label?: string;
	} = $props();

	const nameOf = (one: Approver) =>
		known.find((other) => sameApprover(one, other))?.name ?? 'somebody who left';
	const add = () =>
		(steps = [...steps, { name: steps.length ? 'Approval' : 'Check', of: [], needs: 'all', days: null }]);
	const change = (at: number, to: Partial<Step>) =>
		(steps = steps.map((one, i) => (i === at ? { ...one, ...to } : one)));
	/** Whom a step names; how many of them must approve stays within that. */
	function name(at: number, of: Approver[]) {
		const { needs } = steps[at]!;
		change(at, { of, needs: typeof needs === 'number' && needs >= of.length ? 'all' : needs });
	}
	const rules = (step: Step) => [
		{ value: 'all', label: 'all of them' },
		{ value: 'any', label: 'any one of them' },
		...step.of.slice(2).map((_, i) => ({ value: String(i + 2), label: `${i + 2} of ${step.of.length}` }))
	];
	function earlier(at: number) {
		const next = [...steps];
		const [one] = next.splice(at, 1);
		next.splice(at - 1, 0, one!);
		steps = next;
	}
</script>

<fieldset>
	<legend class="label">{label}</legend>
	<ol class="space-y-2">
		{#each steps as step, at (at)}
			<li class="border border-rule bg-sheet px-2.5 py-2">
				<div class="flex flex-wrap items-center gap-2">
					<span class="font-mono font-semibold text-ink-2" aria-hidden="true">{at + 1}</span>
					<input
						class="field !w-[150px]"
						aria-label="Name of step {at + 1}"
						value={step.name}
						oninput={(e) => change(at, { name: e.currentTarget.value })}
						maxlength={80}
						required
					/>
					{#if step.of.length > 1}<Select
							label="How many approve step {at + 1}"
							choices={rules(step)}
							value={String(step.needs)}
							choose={(to) => change(at, { needs: to === 'all' || to === 'any' ? to : Number(to) })}
							class="!w-[150px]"
						/>{/if}
					<label class="flex items-center gap-1.5 text-ink-2"
						>within<input
							class="field !w-[58px] font-mono"
							type="number"
							min={1}
							max={MOST_STEP_DAYS}
							aria-label="Working days for step {at + 1}"
							value={step.days ?? ''}
							oninput={(e) => change(at, { days: e.currentTarget.valueAsNumber || null })}
						/>working days</label
					>
					<span class="ml-auto flex gap-3">
						{#if at > 0}<button type="button" class="link text-[12px]" onclick={() => earlier(at)}
								>Earlier</button
							>{/if}
						{#if steps.length > 1}<button
								type="button"
								class="link text-[12px]"
								onclick={() => (steps = steps.filter((_, i) => i !== at))}>Delete</button
							>{/if}
					</span>
				</div>
				<div class="mt-1.5 flex flex-wrap items-center gap-1.5">
					{#if step.of.length > 1}<span class="text-[12px] text-ink-2">{whoWords(step)}</span>{/if}
					{#each step.of as one (one.kind + one.id)}<span
							class="inline-flex items-center gap-1 rounded-sm border border-rule bg-film px-1.5 py-0.5"
							>{nameOf(one)}<button
								type="button"
								class="grid h-6 w-6 place-items-center text-ink-2 hover:text-fault"
								aria-label="Leave {nameOf(one)} out of step {at + 1}"
								onclick={() =>
									name(
										at,
										step.of.filter((other) => !sameApprover(one, other))
									)}><X size={13} /></button
							></span
						>{/each}
					{#if step.of.length < MOST_APPROVERS}<div class="min-w-[220px] flex-1">
							<PersonPicker
								label="Add to step {at + 1}"
								inline
								placeholder={step.of.length ? 'and…' : 'Who approves: a person, department or group'}
								known={known.filter((one) => !step.of.some((other) => sameApprover(one, other)))}
								pick={(one) =>
									isKnown(one) &&
									one.kind !== 'everyone' &&
									name(at, [...step.of, { kind: one.kind, id: one.id }])}
							/>
						</div>{/if}
				</div>
			</li>
		{/each}
	</ol>
	{#if steps.length < MOST_STEPS}<button type="button" class="button mt-2" onclick={add}
			>{steps.length ? 'Add a step' : 'Add the first step'}</button
		>{/if}
</fieldset>
