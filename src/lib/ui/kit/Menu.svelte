<script lang="ts">
	import Check from '@lucide/svelte/icons/check';
	import { DropdownMenu } from 'bits-ui';
	import type { Snippet } from 'svelte';
	import { filled, type MenuGroup } from './menu';

	/** What can be done with something, in groups. What may not be done says why. */
	let {
		label = '',
		face,
		name,
		class: look = 'button',
		align = 'end',
		disabled = false,
		groups
	}: {
		/** The words of its button. */
		label?: string;
		/** What its button shows instead of words. */
		face?: Snippet;
		/** What the button is called for screen readers, when it shows no words. */
		name?: string;
		class?: string;
		align?: 'start' | 'end';
		disabled?: boolean;
		groups: readonly MenuGroup[];
	} = $props();
	const shown = $derived(filled(groups));
	const item =
		'block w-full cursor-pointer px-3 py-1.5 text-left data-disabled:cursor-default data-disabled:text-ink-2 data-highlighted:bg-act-soft data-highlighted:outline-none';
</script>

<DropdownMenu.Root>
	<DropdownMenu.Trigger class={look} aria-label={name} {disabled}
		>{#if face}{@render face()}{:else}{label} <span aria-hidden="true">▾</span>{/if}</DropdownMenu.Trigger
	>
	<DropdownMenu.Portal>
		<DropdownMenu.Content
			{align}
			sideOffset={4}
			collisionPadding={8}
			class="droplist max-h-[80vh] max-w-[92vw] min-w-[190px] text-ink"
		>
			{#each shown as { head, entries }, i (i)}
				{#if i > 0}<DropdownMenu.Separator class="my-1 border-t border-rule" />{/if}
				{#if head}<p class="px-3 pt-1 pb-0.5 text-[12px] text-ink-2">{head}</p>{/if}
				{#each entries as entry (entry.word)}
					{#if entry.ticked === undefined}<DropdownMenu.Item
							class="{item} {entry.key ? '!flex items-baseline gap-4' : ''} {entry.dangerous
								? 'text-fault'
								: ''} {entry.narrow ? 'md:hidden' : ''}"
							disabled={entry.disabled || Boolean(entry.why)}
							onSelect={entry.act}
							>{#if entry.code}<span class="mr-2 font-mono">{entry.code}</span
								>{/if}{entry.word}{#if entry.why}<span class="block max-w-[280px] text-[12px]"
									>{entry.why}</span
								>{/if}{#if entry.hint}<span class="block max-w-[280px] text-[12px] text-ink-2"
									>{entry.hint}</span
								>{/if}{#if entry.key}<span class="ml-auto font-mono text-[12px] text-ink-2" aria-hidden="true"
									>{entry.key}</span
								>{/if}</DropdownMenu.Item
						>{:else}<DropdownMenu.CheckboxItem
							class="{item} flex items-center gap-2"
							checked={entry.ticked}
							onCheckedChange={entry.act}
							closeOnSelect={false}
							disabled={entry.disabled}
							>{#snippet children({ checked })}<Check
									size={14}
									class={checked ? '' : 'invisible'}
									aria-hidden="true"
								/>{entry.word}{/snippet}</DropdownMenu.CheckboxItem
						>{/if}
				{/each}
			{/each}
		</DropdownMenu.Content>
	</DropdownMenu.Portal>
</DropdownMenu.Root>
