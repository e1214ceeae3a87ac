<script lang="ts">
	import Check from '@lucide/svelte/icons/check';
	import ChevronDown from '@lucide/svelte/icons/chevron-down';
	import { Select } from 'bits-ui';

	/**
	 * Several of a few, to narrow a list by. Says what is chosen, or that nothing narrows; what is chosen is only told,
	 * and shows when the values become it. Its list stays open until it is left.
	 */
	let {
		label,
		choices,
		values,
		choose,
		class: more = ''
	}: {
		/** What is chosen. */
		label: string;
		choices: readonly { value: string; label: string }[];
		values: readonly string[];
		choose: (values: string[]) => void;
		/** More of its look, such as its width. */
		class?: string;
	} = $props();

	const named = $derived(values.map((value) => choices.find((one) => one.value === value)?.label ?? value));
	const says = $derived(
		!named.length
			? `${label}: all`
			: named.length === 1
				? named[0]!
				: `${named[0]!} and ${named.length - 1} more`
	);
</script>

<Select.Root
	type="multiple"
	value={[...values]}
	items={choices.map(({ value, label }) => ({ value, label }))}
	onValueChange={choose}
>
	<Select.Trigger
		class="field inline-flex items-center gap-2 text-left {values.length
			? '!border-act !bg-act-soft font-semibold'
			: ''} {more}"
		aria-label={label}
		title={named.length > 1 ? named.join(', ') : undefined}
		><span class="min-w-0 truncate">{says}</span><ChevronDown
			size={14}
			class="ml-auto shrink-0"
			aria-hidden="true"
		/></Select.Trigger
	>
	<Select.Portal>
		<Select.Content
			class="droplist max-h-[50vh] max-w-[90vw] min-w-[var(--bits-select-anchor-width)]"
			sideOffset={2}
			aria-label={label}
		>
			{#each choices as choice (choice.value)}
				<Select.Item value={choice.value} label={choice.label} class="droplist-item items-center">
					{#snippet children({ selected })}<span
							class="grid h-4 w-4 shrink-0 place-items-center border border-ink"
							aria-hidden="true"
							>{#if selected}<Check size={13} />{/if}</span
						>{choice.label}{/snippet}
				</Select.Item>
			{/each}
		</Select.Content>
	</Select.Portal>
</Select.Root>
