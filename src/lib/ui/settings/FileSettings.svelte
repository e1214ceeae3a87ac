<script lang="ts">
	import { untrack } from 'svelte';
	import type { AnswerOf } from '../../client/cupboard';
	import Field from '../kit/Field.svelte';
	import SettingsForm from './SettingsForm.svelte';

	/** What files may be. */
	let { project }: { project: AnswerOf<'projectFrame'>['project'] } = $props();
	/** Bytes of a GB as it is written here. */
	const GB = 1024 ** 3;
	const before = untrack(() => Math.round((project.maxFileBytes / GB) * 100) / 100);
	let largest = $state(before);
	let keepPosition = $state(untrack(() => project.keepPosition));
</script>

<SettingsForm
	project={project.id}
	title="Files"
	button="Change what files may be"
	change={{
		keepPosition,
		// What was not touched stays to the byte.
		...(largest === before ? {} : { maxFileBytes: Math.round(largest * GB) })
	}}
>
	<div class="max-w-[240px]">
		<Field
			label="Largest file, in GB"
			name="maxFileBytes"
			bind:value={largest}
			type="number"
			min={0.01}
			max={200}
			step="any"
			hint="what is larger is refused before it is sent"
		/>
	</div>
	<label class="flex items-start gap-2"
		><input type="checkbox" class="mt-1 accent-act" bind:checked={keepPosition} /><span
			><b class="font-semibold">Photographs keep where they were taken</b><span
				class="block text-[12px] text-ink-2"
				>Otherwise the position is taken out of JPEG files before they leave the phone or computer; the
				picture stays as it was.</span
			></span
		></label
	>
</SettingsForm>
