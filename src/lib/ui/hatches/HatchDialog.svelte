<script lang="ts">
	import DateField from '../kit/DateField.svelte';
	import { cupboard } from '../../client/cupboard';
	import { sentenceOf } from '../platform/api';
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
	let fault = $state('');
	let link = $state('');

	async function submit(event: SubmitEvent) {
		event.preventDefault();
		fault = '';
		try {
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
		} catch (error) {
			fault = sentenceOf(error);
		}
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
		<form onsubmit={submit} class="space-y-3">
			<p class="text-ink-2">
				Whoever holds the link can put files in. They see no list, no names and no sizes.
			</p>
			<label class="block"
				><span class="label">What is asked for</span><input
					class="field"
					placeholder="Shop drawings of the lifting towers"
					bind:value={title}
					required
					maxlength="180"
				/></label
			>
			<div class="grid grid-cols-3 gap-3">
				<DateField label="Until" bind:value={until} required />
				<label
					><span class="label">MB a file, at most</span><input
						class="field"
						type="number"
						min="1"
						max="20000"
						bind:value={megabytes}
						required
					/></label
				>
				<label
					><span class="label">Files, at most</span><input
						class="field"
						type="number"
						min="1"
						max="5000"
						bind:value={files}
						required
					/></label
				>
			</div>
			<label class="block"
				><span class="label">Kinds of file let in, by ending; empty for every kind</span><input
					class="field"
					placeholder="pdf dxf dwg zip"
					bind:value={endings}
				/></label
			>
			<div class="grid grid-cols-2 gap-3">
				<label
					><span class="label">Mail the link to</span><input
						class="field"
						type="email"
						bind:value={email}
					/></label
				>
				<label><span class="label">Name</span><input class="field" bind:value={name} /></label>
			</div>
			{#if fault}<p role="alert" class="text-fault">{fault}</p>{/if}
			<div class="flex justify-end gap-2">
				<button type="button" class="button" onclick={() => (open = false)}>Cancel</button><button
					class="button button-act">Open hatch</button
				>
			</div>
		</form>
	{/if}
</Dialog>
