<script lang="ts">
	import ReferredBy from '../references/ReferredBy.svelte';
	import Field from '../kit/Field.svelte';
	import Form from '../kit/Form.svelte';
	import Select from '../kit/Select.svelte';
	import {
		label,
		nextIssue,
		parse,
		PURPOSE_LABEL,
		PURPOSES,
		type Purpose,
		type RevisionScheme
	} from '../../core/revisions/revisions';
	import { STATE_LABEL, type DocumentRow } from '../../core/documents/rows';
	import { cupboard } from '../../client/cupboard';
	import Dialog from '../kit/Dialog.svelte';
	import Revision from './Revision.svelte';

	/** Issues the newest working save as a revision, or puts the document into another state. */
	let {
		open = $bindable(false),
		row,
		scheme,
		done
	}: { open: boolean; row: DocumentRow; scheme: RevisionScheme; done: () => void } = $props();
	type State = keyof typeof STATE_LABEL;
	let what = $state<'issue' | 'state'>('issue');
	let purpose = $state<Purpose>('information');
	let goal = $state<State>('archived');
	let why = $state('');
	const current = $derived(parse(scheme, row.label));
	const next = $derived(current ? label(scheme, nextIssue(scheme, current, purpose)) : null);
	const states = $derived((Object.keys(STATE_LABEL) as State[]).filter((s) => s !== row.state));

	async function submit() {
		if (what === 'issue') await cupboard.issueRevision({ document: row.id, purpose, note: why });
		else await cupboard.changeState({ document: row.id, state: goal, reason: why });
		open = false;
		done();
	}
</script>

<Dialog bind:open title="Revision and state of {row.number}">
	<Form
		act={submit}
		button={what === 'issue' ? `Issue ${next ?? ''}` : `Put to ${STATE_LABEL[goal]}`}
		cancel={() => (open = false)}
	>
		<fieldset class="flex gap-5">
			<legend class="sr-only">What to do</legend>
			<label class="flex items-center gap-1.5"
				><input type="radio" class="accent-act" value="issue" bind:group={what} />Issue as a revision</label
			>
			<label class="flex items-center gap-1.5"
				><input type="radio" class="accent-act" value="state" bind:group={what} />Change the state</label
			>
		</fieldset>
		{#if what === 'issue'}
			<label class="block"
				><span class="label">Purpose</span><Select
					choices={PURPOSES.map((p) => ({ value: p, label: PURPOSE_LABEL[p] }))}
					bind:value={purpose}
				/></label
			>
			<p class="flex items-center gap-2">
				<Revision label={row.label} issued={row.issued} /> becomes
				{#if next}<Revision label={next} issued />{/if}
				<span class="text-ink-2">with the same content. Releases do this by themselves.</span>
			</p>
		{:else}
			<label class="block"
				><span class="label">From {STATE_LABEL[row.state]} to</span><Select
					choices={states.map((s) => ({ value: s, label: STATE_LABEL[s] }))}
					bind:value={goal}
				/></label
			>
			<p class="text-ink-2">
				{goal === 'archived'
					? 'An archived document can be looked at and taken; nobody works on it.'
					: 'The trail keeps who changed it and why.'}
			</p>
		{/if}
		<Field label="Why" name="why" bind:value={why} maxlength={2000} required lines={3} />
	</Form>
	<!-- It comes a moment later, and moves nothing that is about to be pressed. -->
	{#if what === 'issue'}<div class="mt-3"><ReferredBy document={row.id} /></div>{/if}
</Dialog>
