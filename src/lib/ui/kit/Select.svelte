<script lang="ts" generics="Value extends string">
	import Check from '@lucide/svelte/icons/check';
	import ChevronDown from '@lucide/svelte/icons/chevron-down';
	import { Select } from 'bits-ui';

	/**
	 * One of a few. Stands in a `label` that says what is chosen, or carries one of its own; arrow keys and typing
	 * choose. What is chosen is bound as `value`; with `choose` it is only told, and shows when the value becomes it.
	 */
	let {
		label,
		id,
		choices,
		value = $bindable(),
		choose,
		name,
		placeholder = '',
		required = false,
		disabled = false,
		class: more = ''
	}: {
		/** What is chosen, for screen readers, where no `label` stands around it. */
		label?: string;
		id?: string;
		choices: readonly {
			value: Value;
			label: string;
			group?: string;
			/** What it means, quietly below it. */ hint?: string;
		}[];
		value: Value | '';
		choose?: (value: Value) => void;
		/** By what a form sends it. */
		name?: string;
		/** Stands there while nothing is chosen. */
		placeholder?: string;
		/** A form is not sent while nothing is chosen. */
		required?: boolean;
		disabled?: boolean;
		/** More of its look, such as its width; as wide as what it stands in otherwise. */
		class?: string;
	} = $props();

	const shown = $derived(choices.find((choice) => choice.value === value)?.label);
	/** What nobody can mean when nothing is meant, for the library that takes an empty text for no choice. */
	const EMPTY = '\u0000';
	const outward = (said: string) => (said === EMPTY ? '' : said) as Value;
	const inward = (said: string) => said || (choices.some((choice) => choice.value === '') ? EMPTY : '');
	const groups = $derived(
		[...new Set(choices.map((choice) => choice.group))].map((name) => ({
			name,
			choices: choices.filter((choice) => choice.group === name)
		}))
	);
	let trigger = $state<HTMLElement | null>(null);
	function chosen(next: string) {
		const said = outward(next);
		if (said === value) return;
		if (choose) choose(said);
		else value = said;
	}
</script>

<Select.Root
	type="single"
	value={inward(value)}
	items={choices.map((choice) => ({ value: inward(choice.value), label: choice.label }))}
	onValueChange={chosen}
	{disabled}
>
	<Select.Trigger
		bind:ref={trigger}
		{id}
		class="field inline-flex items-center gap-2 text-left disabled:opacity-50 {more}"
		aria-label={label}
		><span class="min-w-0 truncate {shown === undefined ? 'text-ink-2' : ''}">{shown ?? placeholder}</span
		><ChevronDown size={14} class="ml-auto shrink-0" aria-hidden="true" /></Select.Trigger
	>
	<Select.Portal>
		<Select.Content
			class="droplist max-h-[50vh] max-w-[90vw] min-w-[var(--bits-select-anchor-width)]"
			sideOffset={2}
			aria-label={label}
		>
			{#each groups as group (group.name)}
				<Select.Group>
					{#if group.name}<Select.GroupHeading class="px-3 pt-1.5 text-[12px] text-ink-2"
							>{group.name}</Select.GroupHeading
						>{/if}
					{#each group.choices as choice (choice.value)}
						<Select.Item
							value={inward(choice.value)}
							label={choice.label}
							aria-label={choice.label}
							{...{ 'aria-description': choice.hint }}
							class="droplist-item items-baseline"
						>
							{#snippet children({ selected })}<Check
									size={14}
									class="mt-1 shrink-0 self-start {selected ? '' : 'invisible'}"
									aria-hidden="true"
								/><span
									>{choice.label}{#if choice.hint}<span
											class="block max-w-[300px] text-[12px] text-ink-2"
											aria-hidden="true">{choice.hint}</span
										>{/if}</span
								>{/snippet}
						</Select.Item>
					{/each}
				</Select.Group>
			{/each}
		</Select.Content>
	</Select.Portal>
</Select.Root>
{#if required}<input
		class="sr-only"
		tabindex="-1"
		aria-hidden="true"
		required
		{value}
		onfocus={() => trigger?.focus()}
	/>{/if}
{#if name}<input type="hidden" {name} {value} />{/if}
