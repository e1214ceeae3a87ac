<script lang="ts">
	import Columns3 from '@lucide/svelte/icons/columns-3';
	import Menu from '../kit/Menu.svelte';
	import { OPTIONAL, type KeptColumns, type OptionalColumn } from './kept-columns.svelte';

	/** Which columns a list shows; the menu stays open while one ticks them. */
	let { columns, words }: { columns: KeptColumns; words: Record<OptionalColumn, string> } = $props();
</script>

{#snippet face()}<Columns3 size={15} aria-hidden="true" />{/snippet}
<Menu
	{face}
	name="Columns"
	class="hidden align-middle text-ink-2 hover:text-ink sm:inline-block"
	align="start"
	groups={[
		OPTIONAL.map((column) => ({
			word: words[column],
			ticked: columns.shows(column),
			act: () => columns.show(column, !columns.shows(column))
		}))
	]}
/>
