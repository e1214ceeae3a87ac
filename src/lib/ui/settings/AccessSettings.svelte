<script lang="ts">
	import { untrack } from 'svelte';
	import { LEVELS, type Level } from '../../core/access/levels';
	import type { AnswerOf } from '../../client/cupboard';
	import { levelChoices } from '../access/level-choices';
	import Field from '../kit/Field.svelte';
	import Select from '../kit/Select.svelte';
	import SettingsForm from './SettingsForm.svelte';

	/** How far people go: who is outside, how far they may go, and what Manage asks for. */
	let { project }: { project: AnswerOf<'projectFrame'>['project'] } = $props();
	let outside = $state<Level | 'nothing'>(untrack(() => project.outsideLevel ?? 'nothing'));
	let domains = $state(untrack(() => project.ownDomains.join(', ')));
	let twoStep = $state(untrack(() => project.manageNeedsTwoStep));
</script>

<SettingsForm
	project={project.id}
	title="People outside"
	button="Change who is outside"
	change={{
		outsideLevel: outside === 'nothing' ? null : outside,
		ownDomains: domains
			.toLowerCase()
			.split(/[\s,;]+/)
			.filter(Boolean)
	}}
>
	<div>
		<label class="label" for="outside-level">People outside may go up to</label>
		<Select
			id="outside-level"
			choices={[{ value: 'nothing', label: 'nothing at all' }, ...levelChoices(LEVELS)]}
			bind:value={outside}
			class="max-w-[240px]"
		/>
		<p class="mt-1 text-[12px] text-ink-2">
			What they have been given beyond it is capped at once; passes follow it too.
		</p>
	</div>
	<Field
		label="Mail domains of your own organisation"
		name="ownDomains"
		bind:value={domains}
		placeholder="company.example"
		hint="Who is invited from one of these is a colleague; everybody else comes from outside."
	/>
</SettingsForm>
<SettingsForm
	project={project.id}
	title="Two-step sign-in"
	button="Change what Manage needs"
	change={{ manageNeedsTwoStep: twoStep }}
>
	<label class="flex items-start gap-2"
		><input type="checkbox" class="mt-1 accent-act" bind:checked={twoStep} /><span
			><b class="font-semibold">Manage needs two-step sign-in</b><span class="block text-[12px] text-ink-2"
				>Whoever has not set it up on their own page goes up to Organise, and controllers do not control,
				until they have.</span
			></span
		></label
	>
</SettingsForm>
