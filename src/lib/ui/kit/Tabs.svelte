<script lang="ts" generics="Value extends string">
	import { Tabs } from 'bits-ui';
	import type { Snippet } from 'svelte';

	/** Several views of one thing in one place; the list of them takes a second line where it is too narrow. */
	let {
		value = $bindable(),
		tabs,
		class: look = ''
	}: {
		value: Value;
		tabs: readonly { value: Value; word: string; panel: Snippet; class?: string }[];
		class?: string;
	} = $props();
</script>

<Tabs.Root bind:value={() => value, (next) => (value = next as Value)} class="flex flex-col {look}">
	<Tabs.List class="flex shrink-0 flex-wrap border-b border-rule px-1">
		{#each tabs as tab (tab.value)}<Tabs.Trigger
				value={tab.value}
				class="border-b-2 border-transparent px-2 py-1.5 font-semibold whitespace-nowrap text-ink-2 data-[state=active]:border-ink data-[state=active]:text-ink"
				>{tab.word}</Tabs.Trigger
			>{/each}
	</Tabs.List>
	{#each tabs as tab (tab.value)}<Tabs.Content
			value={tab.value}
			class="min-h-0 flex-1 overflow-auto {tab.class ?? ''}"
			>{#if tab.value === value}{@render tab.panel()}{/if}</Tabs.Content
		>{/each}
</Tabs.Root>
