<script lang="ts">
	import type { Snippet } from 'svelte';
	import { cupboard, type InputOf } from '../../client/cupboard';
	import Form from '../kit/Form.svelte';
	import { toast } from '../kit/toast';
	import { refreshAll } from '../platform/refresh';

	/** Some settings that are changed together: what comes of a change is said before it is made. */
	let {
		project,
		title,
		button,
		change,
		wrong = '',
		children
	}: {
		project: string;
		title: string;
		/** Verb and object. */
		button: string;
		/** What would be changed, as it is written now. */
		change: Omit<InputOf<'changeSettings'>, 'project'>;
		/** What is wrong with what is written. */
		wrong?: string;
		children: Snippet;
	} = $props();

	/** As it was when the page was opened or changed last; nothing is sent that nobody touched. */
	// svelte-ignore state_referenced_locally
	let kept = $state.raw(JSON.stringify(change));
	const written = $derived(JSON.stringify(change));
	const changed = $derived(written !== kept);

	let effects = $state.raw<string[]>([]);
	/** Milliseconds of quiet after which it is tried. */
	const QUIET = 400;
	$effect(() => {
		const trying = written;
		effects = [];
		if (!changed || wrong) return;
		const timer = setTimeout(() => {
			cupboard
				.changeSettings({ project, ...(JSON.parse(trying) as typeof change), trial: true })
				.then((answer) => trying === written && (effects = answer.effects))
				.catch(() => {});
		}, QUIET);
		return () => clearTimeout(timer);
	});

	async function submit() {
		await cupboard.changeSettings({ project, ...change });
		kept = written;
		toast('Changed. It stands in the activity with what it was before.');
		await refreshAll();
	}
</script>

<section class="max-w-[640px] border border-ink bg-sheet p-4">
	<Form act={submit} {button} disabled={!changed || wrong !== ''} onPage>
		<h2 class="text-[16px]">{title}</h2>
		{@render children()}
		<div role="status">
			{#if wrong}<p class="text-fault">{wrong}</p>
			{:else if effects.length}<ul class="border-l-4 border-lock bg-lock-soft px-3 py-1.5">
					{#each effects as one (one)}<li>{one}</li>{/each}
				</ul>{/if}
		</div>
	</Form>
</section>
