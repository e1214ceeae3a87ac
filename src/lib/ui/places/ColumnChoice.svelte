<script lang="ts">
	import Check from '@lucide/svelte/icons/check';
	import Columns3 from '@lucide/svelte/icons/columns-3';
	import { DropdownMenu } from 'bits-ui';
	import { OPTIONAL, type KeptColumns, type OptionalColumn } from './kept-columns.svelte';

	/** Which columns a list shows; the menu stays open while one ticks them. */
	let { columns, words }: { columns: KeptColumns; words: Record<OptionalColumn, string> } = $props();
</script>

<DropdownMenu.Root>
	<DropdownMenu.Trigger
		class="hidden align-middle text-ink-2 hover:text-ink sm:inline-block"
		aria-label="Columns"><Columns3 size={15} aria-hidden="true" /></DropdownMenu.Trigger
	>
	<DropdownMenu.Portal>
		<DropdownMenu.Content
			align="start"
			sideOffset={4}
			class="z-50 min-w-[160px] border border-ink bg-sheet py-1 shadow-lg"
		>
			{#each OPTIONAL as column (column)}
				<DropdownMenu.CheckboxItem
					class="flex cursor-pointer items-center gap-2 px-3 py-1 data-highlighted:bg-film data-highlighted:outline-none"
					checked={columns.shows(column)}
					onCheckedChange={(shown) => columns.show(column, shown)}
					closeOnSelect={false}
				>
					{#snippet children({ checked })}<Check
							size={14}
							class={checked ? '' : 'invisible'}
							aria-hidden="true"
						/>{words[column]}{/snippet}
				</DropdownMenu.CheckboxItem>
			{/each}
		</DropdownMenu.Content>
	</DropdownMenu.Portal>
</DropdownMenu.Root>
