<script lang="ts">
	import { untrack } from 'svelte';
	import { PURPOSE_LABEL, PURPOSES, type Purpose } from '../../core/revisions/revisions';
	import type { AnswerOf } from '../../client/cupboard';
	import SettingsForm from './SettingsForm.svelte';

	/** Which purposes take a release and a second person. */
	let { project }: { project: AnswerOf<'projectFrame'>['project'] } = $props();
	let chosen = $state<Purpose[]>(untrack(() => [...project.releasePurposes]));
</script>

<SettingsForm
	project={project.id}
	title="Purposes that need a release"
	button="Change the purposes"
	change={{ releasePurposes: PURPOSES.filter((purpose) => chosen.includes(purpose)) }}
>
	<p class="text-[12px] text-ink-2">
		For these nobody issues a revision alone; it goes through a release, checked and approved by a second
		person.
	</p>
	<div class="flex flex-wrap gap-x-4 gap-y-1">
		{#each PURPOSES as purpose (purpose)}<label class="flex items-center gap-1.5"
				><input type="checkbox" class="accent-act" value={purpose} bind:group={chosen} />{PURPOSE_LABEL[
					purpose
				]}</label
			>{/each}
	</div>
</SettingsForm>
