<script lang="ts">
	import Table from '$lib/ui/kit/Table.svelte';
	import Revision from '$lib/ui/documents/Revision.svelte';
	import Neighbourhood from '$lib/ui/references/Neighbourhood.svelte';
	import { LOOK, saysOf } from '$lib/ui/references/says';
	import { plural } from '$lib/ui/platform/words';

	/** A document among those that it names and that name it, two steps far: as a picture, and as the list of the same. */
	let { data } = $props();
	type Line = (typeof data.around.names)[number];
	const code = $derived(data.frame.project.code.toLowerCase());
	const of = $derived(new Map(data.around.documents.map((one) => [one.number, one])));
	const address = (number: string) => `/${code}/document/${of.get(number)!.id}`;
</script>

<svelte:head><title>References of {data.row.number}</title></svelte:head>
<div class="h-full overflow-auto px-5 py-3 max-sm:px-3">
	<div class="mb-2 flex flex-wrap items-center gap-x-3 gap-y-1.5">
		<a class="link font-mono" href="/{code}/document/{data.row.id}">{data.row.number}</a>
		<h1 class="text-[18px]">References of {data.row.title}</h1>
		<Revision label={data.row.label} issued={data.row.issued} />
		<p class="text-ink-2">
			{plural(data.around.documents.length - 1, 'document')} within two steps
		</p>
	</div>
	{#if data.around.names.length}<div class="mb-4 border border-rule bg-sheet max-sm:hidden">
			<Neighbourhood {code} around={data.around} />
		</div>{/if}
	<Table
		label="Which document names which"
		rows={data.around.names}
		key={(one) => `${one.from} ${one.to}`}
		empty="Nothing here names another document by its number yet. Numbers are read from the words of texts, sheets, drawings and schedules."
		lines
		columns={[
			{ id: 'from', head: 'Document', cell: from, by: (one) => one.from },
			{ id: 'to', head: 'Refers to', cell: to, by: (one) => one.to },
			{ id: 'says', head: 'How', cell: says, by: (one) => one.how }
		]}
	/>
	<p class="mt-2 text-[12px] text-ink-2">
		Read from the words of the newest versions that you may look at. Words in pictures are not read.
	</p>
</div>

{#snippet named(number: string)}<a class="link font-mono text-[12.5px]" href={address(number)}>{number}</a>
	<span class="text-ink-2">{of.get(number)!.title}</span>{/snippet}
{#snippet from(one: Line)}{@render named(one.from)}{/snippet}
{#snippet to(one: Line)}<span class="text-ink-2 sm:hidden">refers to </span>{@render named(one.to)}{/snippet}
{#snippet says(one: Line)}<span class={LOOK[one.how]}
		>{saysOf({ ...one, meant: null, document: of.get(one.to)! })}</span
	>{/snippet}
