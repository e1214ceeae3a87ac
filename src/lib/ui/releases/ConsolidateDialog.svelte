<script lang="ts">
	import { cupboard, type AnswerOf } from '../../client/cupboard';
	import { VERDICT_LABEL, VERDICTS, type Verdict } from '../../core/releases';
	import Dialog from '../kit/Dialog.svelte';
	import Form from '../kit/Form.svelte';
	import Select from '../kit/Select.svelte';

	/** Makes one out of the verdicts on a document that differ, or are not all there, with a reason (T9). */
	let {
		open = $bindable(false),
		release,
		item,
		changed
	}: {
		open: boolean;
		release: string;
		item: AnswerOf<'releaseView'>['items'][number];
		changed: () => Promise<void>;
	} = $props();

	let code = $state<Verdict | ''>('');
	let reason = $state('');

	async function submit() {
		await cupboard.consolidateVerdicts({
			release,
			document: item.documentId,
			code: code as Verdict,
			reason
		});
		open = false;
		await changed();
	}
</script>

<Dialog bind:open title="One verdict on {item.number}">
	<Form act={submit} button="Make it {code || 'one'}" cancel={() => (open = false)} disabled={!code}>
		<ul class="space-y-1">
			{#each item.verdicts as one (one.name + one.company)}<li>
					<b class="inline-block w-5">{one.code ?? '–'}</b>
					{one.name}, {one.company}{one.code
						? `: ${one.remark || VERDICT_LABEL[one.code]}`
						: ' has not answered yet'}
				</li>{/each}
		</ul>
		<label class="block"
			><span class="label">Verdict</span><Select
				choices={VERDICTS.map((value) => ({ value, label: `${value}, ${VERDICT_LABEL[value]}` }))}
				bind:value={code}
				placeholder="choose one"
				required
			/></label
		>
		<label class="block"
			><span class="label">Reason</span><textarea
				class="field min-h-[70px]"
				bind:value={reason}
				maxlength={2000}
				required></textarea></label
		>
		<p class="text-[12px] text-ink-2">
			{code === 'C' || code === 'D'
				? 'The document returns to its department, with what was said as remarks to settle. '
				: ''}It stands in the trail with its reason, and does not change any more.
		</p>
	</Form>
</Dialog>
