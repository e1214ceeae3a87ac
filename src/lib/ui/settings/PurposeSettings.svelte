<script lang="ts">
	import { untrack } from 'svelte';
	import { PURPOSE_LABEL, PURPOSES, type Purpose } from '../../core/revisions/revisions';
	import type { AnswerOf } from '../../client/cupboard';
	import SettingsForm from './SettingsForm.svelte';

	/** Which purposes take a release and a second person, and what state they give a document. */
	let { project, more }: { project: AnswerOf<'projectFrame'>['project']; more: AnswerOf<'settings'> } =
		$props();
	let released = $state<Purpose[]>(untrack(() => [...project.releasePurposes]));
	let published = $state<Purpose[]>(untrack(() => [...more.publishingPurposes]));
	let codes = $state(untrack(() => structuredClone(more.suitability)));
	const inOrder = (chosen: readonly Purpose[]) => PURPOSES.filter((purpose) => chosen.includes(purpose));
</script>

<SettingsForm
	project={project.id}
	title="Purposes and states"
	button="Change the purposes"
	change={{ releasePurposes: inOrder(released), publishingPurposes: inOrder(published), suitability: codes }}
>
	<p class="text-[12px] text-ink-2">
		What needs a release nobody issues alone; it is checked, and approved by a second person. A document that
		is issued becomes Published for some purposes, and Shared for the others. The status says what it may be
		used for: a short code and its words, on lists, cover notes and in packages.
	</p>
	<table class="w-full max-w-[520px]">
		<thead class="text-left text-[12px] text-ink-2"
			><tr
				><th class="py-1 font-normal">Purpose</th><th class="w-[76px] font-normal">Needs a release</th><th
					class="w-[86px] font-normal">Makes it Published</th
				></tr
			></thead
		>
		<tbody>
			{#each PURPOSES as purpose (purpose)}<tr class="border-t border-rule-2"
					><td class="py-1">{PURPOSE_LABEL[purpose]}</td><td
						><input
							type="checkbox"
							class="accent-act"
							aria-label="{PURPOSE_LABEL[purpose]} needs a release"
							value={purpose}
							bind:group={released}
						/></td
					><td
						><input
							type="checkbox"
							class="accent-act"
							aria-label="{PURPOSE_LABEL[purpose]} makes it Published"
							value={purpose}
							bind:group={published}
						/></td
					></tr
				>{/each}
		</tbody>
	</table>
	<table class="w-full">
		<thead class="text-left text-[12px] text-ink-2"
			><tr
				><th class="w-[120px] py-1 font-normal">Purpose</th><th class="w-[64px] font-normal">Status</th><th
					class="font-normal">In words</th
				></tr
			></thead
		>
		<tbody>
			{#each PURPOSES as purpose (purpose)}<tr class="border-t border-rule-2"
					><td>{PURPOSE_LABEL[purpose]}</td><td class="py-0.5 pr-1"
						><input
							class="field font-mono"
							maxlength="12"
							aria-label="Status code, {PURPOSE_LABEL[purpose]}"
							bind:value={codes[purpose].code}
						/></td
					><td
						><input
							class="field"
							maxlength="80"
							aria-label="Status in words, {PURPOSE_LABEL[purpose]}"
							bind:value={codes[purpose].words}
						/></td
					></tr
				>{/each}
		</tbody>
	</table>
</SettingsForm>
