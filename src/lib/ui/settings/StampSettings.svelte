<script lang="ts">
	import { untrack } from 'svelte';
	import type { AnswerOf } from '../../client/cupboard';
	import Field from '../kit/Field.svelte';
	import { projectDay } from '../platform/project-day';
	import SettingsForm from './SettingsForm.svelte';

	/** Stamps: those that people put on sheets, and the one on copies that go out. */
	let { project, more }: { project: AnswerOf<'projectFrame'>['project']; more: AnswerOf<'settings'> } =
		$props();
	let stamps = $state(untrack(() => project.stamps.join('\n')));
	let copyStamp = $state(untrack(() => more.copyStamp));
	const example = $derived([copyStamp.trim(), 'Maren Aldgate', projectDay()].filter(Boolean).join(' · '));
</script>

<SettingsForm
	project={project.id}
	title="Stamp on copies that go out"
	button="Change the stamp on copies"
	change={{ copyStamp: copyStamp.trim() }}
>
	<Field
		label="Words before holder and day"
		name="copyStamp"
		bind:value={copyStamp}
		maxlength={60}
		placeholder="Uncontrolled copy"
		hint="It stands on every page of what is downloaded through a pass that stamps its copies; the original stays as it is."
	/>
	<div class="max-w-[420px] border border-rule bg-film p-3">
		<p class="border border-fault bg-sheet px-2 py-0.5 text-[12px] font-semibold text-fault">{example}</p>
	</div>
</SettingsForm>
<SettingsForm
	project={project.id}
	title="Stamps for marking up sheets"
	button="Change the stamps"
	change={{
		stamps: stamps
			.split('\n')
			.map((line) => line.trim())
			.filter(Boolean)
	}}
>
	<div class="max-w-[320px]">
		<Field
			label="One a line"
			name="stamps"
			bind:value={stamps}
			lines={6}
			maxlength={8_000}
			hint="Day and name are added when one is set."
		/>
	</div>
</SettingsForm>
