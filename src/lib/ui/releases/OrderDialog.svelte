<script lang="ts">
	import { untrack } from 'svelte';
	import { cupboard, type AnswerOf } from '../../client/cupboard';
	import { groupedBy } from '../../core/lists/group';
	import Dialog from '../kit/Dialog.svelte';
	import Form from '../kit/Form.svelte';
	import OrderedList from '../kit/OrderedList.svelte';

	/** Puts the documents of a release in an order by hand, each group of them by itself. */
	let {
		open = $bindable(false),
		release,
		items,
		changed
	}: {
		open: boolean;
		release: string;
		items: AnswerOf<'releaseView'>['items'];
		changed: () => Promise<void>;
	} = $props();

	const groups = $state(
		untrack(() =>
			[...groupedBy(items, (item) => item.heading)].map(([head, of]) => ({
				head,
				items: of.map(({ documentId: id, number: name, title }) => ({ id, name, title }))
			}))
		)
	);
	const order = $derived(groups.flatMap((group) => group.items.map((item) => item.id)));
	const same = $derived(order.every((id, at) => id === items[at]?.documentId));

	async function submit() {
		await cupboard.orderDocuments({ release, documents: order });
		open = false;
		await changed();
	}
</script>

<Dialog bind:open title="Order of the documents" wide>
	<Form act={submit} button="List them so" cancel={() => (open = false)} disabled={same}>
		<p class="text-ink-2">
			Drag a document by its handle, press the arrow keys on it, or type its place. The cover note, the signed
			list and those who get the release show this order. Every step of the route is asked again.
		</p>
		<div class="max-h-[56vh] space-y-3 overflow-auto">
			{#each groups as group (group.head)}
				<section>
					{#if group.head}<h3 class="mb-1 text-[13px] font-semibold">{group.head}</h3>{/if}
					<OrderedList label={group.head || 'Documents of the release'} bind:items={group.items}>
						{#snippet row(one)}<span class="flex min-w-0 flex-col sm:flex-row sm:items-baseline sm:gap-x-3"
								><span class="font-mono text-[12.5px] whitespace-nowrap">{one.name}</span><span
									class="min-w-0 truncate">{one.title}</span
								></span
							>{/snippet}
					</OrderedList>
				</section>
			{/each}
		</div>
	</Form>
</Dialog>
