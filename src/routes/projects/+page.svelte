<script lang="ts">
	import SignOut from '$lib/ui/shell/SignOut.svelte';
	import { goto } from '$app/navigation';
	import Gate from '$lib/ui/shell/Gate.svelte';
	import { cupboard } from '$lib/client/cupboard';
	import { sentenceOf } from '$lib/ui/platform/api';

	let { data } = $props();
	let code = $state('');
	let name = $state('');
	let client = $state('');
	let timeZone = $state(Intl.DateTimeFormat().resolvedOptions().timeZone);
	let fault = $state('');

	async function make(event: SubmitEvent) {
		event.preventDefault();
		fault = '';
		try {
			const made = await cupboard.makeProject({ code, name, client, timeZone });
			await goto(`/${made.code.toLowerCase()}/people`);
		} catch (error) {
			fault = sentenceOf(error);
		}
	}
</script>

<Gate title="Projects">
	<ul class="mb-4">
		{#each data.projects as project (project.id)}
			<li>
				<a
					class="flex gap-3 border-b border-rule py-2 font-semibold hover:text-act"
					href="/{project.code.toLowerCase()}/shelves"
					><span class="font-mono">{project.code}</span>{project.name}</a
				>
			</li>
		{:else}<li class="text-ink-2">
				{data.mayMake
					? 'There is no project yet. Make the first one.'
					: 'You are in no project yet. Ask its document controller to add you.'}
			</li>{/each}
	</ul>
	{#if data.mayMake}
		<form onsubmit={make} class="space-y-2 border-t border-rule pt-3">
			<h2 class="text-[15px]">Make a project</h2>
			<label class="block"
				><span class="label">Code, as numbers begin with it</span><input
					class="field font-mono uppercase"
					bind:value={code}
					maxlength="6"
					required
				/></label
			>
			<label class="block"
				><span class="label">Name</span><input class="field" bind:value={name} required /></label
			>
			<label class="block"
				><span class="label">Client</span><input class="field" bind:value={client} required /></label
			>
			<label class="block"
				><span class="label">Time zone</span><input class="field" bind:value={timeZone} required /></label
			>
			{#if fault}<p role="alert" class="text-fault">{fault}</p>{/if}
			<button class="button button-act">Make the project</button>
		</form>
	{/if}
	<div class="mt-4"><SignOut quiet /></div>
</Gate>
