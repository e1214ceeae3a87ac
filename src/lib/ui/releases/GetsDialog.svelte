<script lang="ts">
	import { SvelteSet } from 'svelte/reactivity';
	import { cupboard, type AnswerOf } from '../../client/cupboard';
	import { gets } from '../../core/releases';
	import Dialog from '../kit/Dialog.svelte';
	import Form from '../kit/Form.svelte';
	import { NUMBER_COLUMN } from '../kit/table';
	import Table from '../kit/Table.svelte';
	import { receiversOf, sentTo } from './recipients';

	/** Chooses which documents of a release somebody gets. */
	let {
		open = $bindable(false),
		project,
		release,
		recipients,
		of,
		items,
		changed
	}: {
		open: boolean;
		project: string;
		release: string;
		recipients: AnswerOf<'releaseView'>['recipients'];
		/** Of whom it is chosen. */
		of: AnswerOf<'releaseView'>['recipients'][number];
		items: AnswerOf<'releaseView'>['items'];
		changed: () => Promise<void>;
	} = $props();

	// svelte-ignore state_referenced_locally
	const chosen = new SvelteSet(
		items.filter((item) => gets(of, item.documentId)).map((item) => item.documentId)
	);

	async function submit() {
		const all = chosen.size === items.length;
		await cupboard.changeRelease({
			release,
			recipients: await sentTo(
				project,
				receiversOf(
					recipients.map((one) =>
						one.recipient === of.recipient ? { ...one, documents: all ? null : [...chosen] } : one
					)
				)
			)
		});
		open = false;
		await changed();
	}
</script>

<Dialog bind:open title="What {of.name} gets">
	<Form act={submit} button="Choose these" cancel={() => (open = false)} disabled={!chosen.size}>
		<div class="max-h-[50vh] overflow-auto border border-rule">
			<Table
				label="Documents of the release"
				rows={items}
				key={(item) => item.documentId}
				empty="There are no documents."
				selection={chosen}
				tickName={(item) => item.number}
				columns={[NUMBER_COLUMN, { id: 'title', head: 'Title', text: (item) => item.title }]}
			/>
		</div>
		<p class="text-[12px] text-ink-2">
			{chosen.size === items.length
				? `${of.name} gets all of it, and what is put in later, too.`
				: `${of.name} sees these ${chosen.size}, and not that there are others. What is put in later is not for them unless it is ticked here.`}
			Every step of the route is asked again.
		</p>
	</Form>
</Dialog>
