<script lang="ts">
	import Field from '../kit/Field.svelte';
	import Form from '../kit/Form.svelte';
	import Select from '../kit/Select.svelte';
	import type { Level } from '../../core/access/levels';
	import { cupboard } from '../../client/cupboard';
	import CopyLine from '../kit/CopyLine.svelte';
	import Dialog from '../kit/Dialog.svelte';
	import { projectDay } from '../platform/project-day';
	import PassFields, { termsGiven, type PassTerms } from './PassFields.svelte';
	import { plural } from '../platform/words';

	/** Makes a pass to a folder or document. The lowest that serves is preset: named people, looking only, two weeks. */
	let {
		open = $bindable(false),
		place,
		outsideLevel,
		labels = [],
		done
	}: {
		open: boolean;
		place: { id: string; name: string; kind: string };
		outsideLevel: Level | null;
		labels?: string[];
		done: () => Promise<void> | void;
	} = $props();

	let terms = $state<PassTerms>({
		whom: '',
		audience: 'named',
		emails: '',
		take: false,
		stamped: false,
		withMarks: false,
		until: projectDay(14),
		maxUses: null,
		password: ''
	});
	let version = $state('');
	let ending = $state('');
	let message = $state('');
	let embeddable = $state(false);
	let made = $state<{ link: string; mailed: number } | null>(null);
	let width = $state(800);
	let height = $state(520);
	const origin = $derived(typeof location === 'undefined' ? '' : location.origin);
	const snippet = $derived(
		made
			? `<iframe src="${made.link}/embed" width="${width}" height="${height}" title="${place.name}" loading="lazy" style="border:1px solid #c9d3cc"></iframe>`
			: ''
	);

	async function submit() {
		made = await cupboard.makePass({
			place: place.id,
			...termsGiven(terms),
			until: terms.until,
			password: terms.password || null,
			version: version || null,
			ending: ending || null,
			embeddable,
			message: terms.audience === 'accounts' ? '' : message
		});
		await done();
	}
</script>

<Dialog bind:open title="Pass to {place.name}">
	{#if made}
		<div class="space-y-3">
			<p>
				The pass is made{made.mailed ? ` and mailed to ${plural(made.mailed, 'address', 'addresses')}` : ''}.
				You can look its link up again under Passes.
			</p>
			<CopyLine label="Link" value={made.link} />
			{#if terms.password}<p class="text-ink-2">Send the password another way than the link.</p>{/if}
			{#if embeddable}
				<div class="flex gap-2">
					<label class="w-24"
						><span class="label">Width</span><input
							class="field"
							type="number"
							min="200"
							max="4000"
							bind:value={width}
						/></label
					>
					<label class="w-24"
						><span class="label">Height</span><input
							class="field"
							type="number"
							min="150"
							max="4000"
							bind:value={height}
						/></label
					>
				</div>
				<CopyLine label="For a web page" value={snippet} />
			{/if}
			<p class="text-[12px] text-ink-2">
				Withdrawing the pass ends it at once. Copies already downloaded stay where they are.
			</p>
			<div class="flex justify-end">
				<button class="button button-act" onclick={() => (open = false)}>Done</button>
			</div>
		</div>
	{:else}
		<Form act={submit} button="Make pass" cancel={() => (open = false)}>
			<PassFields
				bind:terms
				mailed="Mail the link to, if you like"
				mayGive={outsideLevel !== 'view' && outsideLevel !== 'drop'}
				from={projectDay()}
			/>
			{#if terms.audience !== 'accounts' && terms.emails.trim()}<Field
					label="Message, if any"
					name="message"
					bind:value={message}
					maxlength={2000}
					lines={2}
				/>{/if}
			{#if place.kind === 'document'}<label class="block"
					><span class="label">Shows</span><Select
						choices={[
							{ value: '', label: 'always the newest version' },
							...labels.map((label) => ({ value: label, label: `exactly ${label}` }))
						]}
						bind:value={version}
					/></label
				>{/if}
			<details>
				<summary class="cursor-pointer text-ink-2">Address and web pages</summary>
				<label class="mt-2 block"
					><span class="label">Ending of the address, if you want your own ({origin}/pass/…)</span><input
						class="field font-mono"
						bind:value={ending}
						minlength="12"
						maxlength="60"
						pattern="[A-Za-z0-9\-]+"
					/></label
				>
				{#if ending}<p class="mt-1 text-[12px] text-lock">
						An ending of your own is easier to guess than one Cupboard makes. It is refused for what is marked
						sensitive.
					</p>{/if}
				{#if place.kind === 'document'}<label class="mt-2 flex items-center gap-2"
						><input type="checkbox" class="accent-act" bind:checked={embeddable} />may be shown in a frame of
						a web page (for anyone, without password)</label
					>{/if}
			</details>
		</Form>
	{/if}
</Dialog>
