<script lang="ts">
	import Field from '../kit/Field.svelte';
	import Form from '../kit/Form.svelte';
	import DateField from '../kit/DateField.svelte';
	import { cupboard } from '../../client/cupboard';
	import CopyLine from '../kit/CopyLine.svelte';
	import Dialog from '../kit/Dialog.svelte';
	import { projectDay } from '../platform/project-day';

	/** Makes a hatch: a link by which people outside put files in and see nothing. */
	let {
		open = $bindable(false),
		place,
		done
	}: { open: boolean; place: { id: string; name: string }; done: () => Promise<void> | void } = $props();

	let title = $state('');
	let until = $state(projectDay(14));
	let megabytes = $state(2_000);
	let files = $state(200);
	let endings = $state('');
	let name = $state('');
	let email = $state('');
	let link = $state('');

	async function submit() {
		const answer = await cupboard.makeHatch({
			place: place.id,
			title,
			until,
			maxFileBytes: Math.round(megabytes * 1e6),
			maxFiles: files,
			endings: endings
				.split(/[\s,;.]+/)
				.map((e) => e.trim())
				.filter(Boolean),
			tell: email ? { name: name || email.split('@')[0]!, email } : null
		});
		link = answer.link;
		await done();
	}
</script>

<Dialog bind:open title="Hatch into {place.name}">
	{#if link}
		<div class="space-y-3">
			<p>The hatch is open. The link is shown only now{email ? `; it is on its way to ${email}` : ''}.</p>
			<CopyLine label="Link" value={link} />
			<p class="text-[12px] text-ink-2">
				What comes in waits under Arrivals, checked, until somebody with Manage here sorts it.
			</p>
			<div class="flex justify-end">
				<button class="button button-act" onclick={() => (open = false)}>Done</button>
			</div>
		</div>
	{:else}
		<Form act={submit} button="Open hatch" cancel={() => (open = false)}>
			<p class="text-ink-2">
				Whoever holds the link can put files in. They see no list, no names and no sizes.
			</p>
			<Field
				label="What is asked for"
				name="title"
				bind:value={title}
				placeholder="Shop drawings of the lifting towers"
				maxlength={180}
				required
			/>
			<div class="grid grid-cols-3 gap-3">
				<DateField label="Until" bind:value={until} required />
				<Field
					label="MB a file, at most"
					name="megabytes"
					bind:value={megabytes}
					type="number"
					min={1}
					max={20000}
					required
				/>
				<Field
					label="Files, at most"
					name="files"
					bind:value={files}
					type="number"
					min={1}
					max={5000}
					required
				/>
			</div>
			<Field
				label="Kinds of file let in, by ending; empty for every kind"
				name="endings"
				bind:value={endings}
				placeholder="pdf dxf dwg zip"
			/>
			<div class="grid grid-cols-2 gap-3">
				<Field label="Mail the link to" name="email" bind:value={email} type="email" />
				<Field label="Name" name="name" bind:value={name} />
			</div>
		</Form>
	{/if}
</Dialog>
