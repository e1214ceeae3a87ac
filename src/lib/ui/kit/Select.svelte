<script lang="ts" generics="Value extends string">
	import Check from '@lucide/svelte/icons/check';
	import ChevronDown from '@lucide/svelte/icons/chevron-down';
	import { Select } from 'bits-ui';

	/** One of a few. Arrow keys and typing choose; what is chosen is told to `choose`. */
	let {
		label,
		choices,
		value,
		choose,
		wide = ''
	}: {
		/** Says to screen readers what is chosen. */
		label: string;
		choices: readonly { value: Value; label: string }[];
		value: Value;
		choose: (value: Value) => void;
		/** Width of the field, as a class. */
		wide?: string;
	} = $props();
	const shown = $derived(choices.find((choice) => choice.value === value)?.label ?? '');
</script>

<Select.Root
	type="single"
	{value}
	items={choices.map((choice) => ({ ...choice }))}
	onValueChange={(next) => next !== value && choose(next as Value)}
>
	<Select.Trigger
		class="field inline-flex w-auto max-w-[260px] items-center gap-2 {wide}"
		aria-label="{label}: {shown}"
		><span class="min-w-0 truncate">{shown}</span><ChevronDown
			size={14}
			class="ml-auto shrink-0"
			aria-hidden="true"
		/></Select.Trigger
	>
	<Select.Portal>
		<Select.Content
			class="z-50 max-h-[50vh] min-w-[var(--bits-select-anchor-width)] overflow-auto border border-ink bg-sheet py-1 shadow-lg"
			sideOffset={2}
			aria-label={label}
		>
			{#each choices as choice (choice.value)}
				<Select.Item
					value={choice.value}
					label={choice.label}
					class="flex cursor-pointer items-center gap-2 px-3 py-1 data-highlighted:bg-film data-highlighted:outline-none"
				>
					{#snippet children({ selected })}<Check
							size={14}
							class={selected ? '' : 'invisible'}
							aria-hidden="true"
						/>{choice.label}{/snippet}
				</Select.Item>
			{/each}
		</Select.Content>
	</Select.Portal>
</Select.Root>
