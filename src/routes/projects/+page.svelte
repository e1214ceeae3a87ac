<script lang="ts">
	import Combobox from '$lib/ui/kit/Combobox.svelte';
	import Field from '$lib/ui/kit/Field.svelte';
	import Form from '$lib/ui/kit/Form.svelte';
	import SignOut from '$lib/ui/shell/SignOut.svelte';
	import { goto } from '$app/navigation';
	import Gate from '$lib/ui/shell/Gate.svelte';
	import { cupboard } from '$lib/client/cupboard';

	let { data } = $props();
	let code = $state('');
	let name = $state('');
	let client = $state('');
	let timeZone = $state(Intl.DateTimeFormat().resolvedOptions().timeZone);

	/** Zones by their towns; what a zone is called in full tells them apart. */
	const zones = ['UTC', ...Intl.supportedValuesOf('timeZone')].map((zone) => ({
		value: zone,
		label: zone.split('/').at(-1)!.replaceAll('_', ' '),
		detail: zone
	}));
	async function make() {
		const made = await cupboard.makeProject({ code, name, client, timeZone });
		await goto(`/${made.code.toLowerCase()}/shelves`);
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
		<div class="border-t border-rule pt-3">
			<Form act={make} button="Make the project" onPage>
				<h2 class="text-[15px]">Make a project</h2>
				<Field
					label="Code, as numbers begin with it"
					name="code"
					bind:value={code}
					maxlength={6}
					required
					mono
				/>
				<Field label="Name" name="name" bind:value={name} required />
				<Field label="Client" name="client" bind:value={client} required />
				<Combobox label="Time zone, by a town in it" choices={zones} bind:value={timeZone} required />
			</Form>
		</div>
	{/if}
	<div class="mt-4"><SignOut quiet /></div>
</Gate>
