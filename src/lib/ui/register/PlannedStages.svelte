<script lang="ts">
	import { page } from '$app/state';
	import { cupboard, type AnswerOf } from '../../client/cupboard';
	import { onTouched } from '../platform/live.svelte';
	import { dayText } from '../platform/words';

	/** What the register says of a document: its deliverable's stages. Nothing when nobody planned it. */
	let { number }: { number: string } = $props();
	const frame = $derived(page.data.frame as AnswerOf<'projectFrame'>);
	const project = $derived(frame.project.id);

	let line = $state.raw<AnswerOf<'deliverable'> | null>(null);
	let again = $state(0);
	$effect(() => onTouched(['register', 'releases', 'documents'], () => again++));
	$effect(() => {
		void again;
		const asked = number;
		cupboard
			.deliverable({ project, deliverable: asked })
			.then((found) => {
				if (asked === number) line = found;
			})
			// That nobody planned it is no fault.
			.catch(() => {
				if (asked === number) line = null;
			});
	});
	function says(stage: AnswerOf<'deliverable'>['stages'][number]) {
		const planned = stage.planned ? `planned ${dayText(stage.planned)}` : 'no planned day';
		if (stage.actual) return `issued ${dayText(stage.actual)}, ${planned}`;
		return stage.forecast && stage.forecast !== stage.planned
			? `expected ${dayText(stage.forecast)}, ${planned}`
			: planned;
	}
</script>

{#if line}<dt>Register</dt>
	<dd>
		{#each line.stages as stage (stage.stage)}<span class="block"
				>{line.names[stage.stage]}: {says(stage)}</span
			>{/each}
		<a class="link" href="/{frame.project.code.toLowerCase()}/register?words={encodeURIComponent(number)}"
			>Its deliverable</a
		>
	</dd>{/if}
