<script lang="ts" generics="Value extends string">
	import Check from '@lucide/svelte/icons/check';
	import ChevronDown from '@lucide/svelte/icons/chevron-down';
	import { Combobox } from 'bits-ui';
	import { fits } from '../../core/words/plain';

	/**
	 * One of many, found by typing the beginnings of its words. Carries its label; what is chosen is bound as `value`.
	 * With `choose` it is only told, and the field is empty again for the next.
	 */
	let {
		label,
		inline = false,
		choices,
		value = $bindable(),
		choose,
		made,
		placeholder = '',
		required = false,
		disabled = false,
		class: more = ''
	}: {
		label: string;
		/** The label is for screen readers only. */
		inline?: boolean;
		choices: readonly Choice[];
		value?: Value | '';
		choose?: (value: Value) => void;
		/** What can be chosen beside the choices, made of what is typed. */
		made?: (typed: string) => Choice | null;
		placeholder?: string;
		/** A form is not sent while nothing is chosen. */
		required?: boolean;
		disabled?: boolean;
		class?: string;
	} = $props();
	interface Choice {
		value: Value;
		label: string;
		/** What tells it apart from others of the name. */
		detail?: string;
		group?: string;
	}

	/** Most choices that are shown; more are found by typing on. */
	const MOST = 60;
	const id = $props.id();
	let open = $state(false);
	/** What is typed; null while nothing is, and what is chosen stands there. */
	let typed = $state<string | null>(null);
	let input = $state<HTMLElement | null>(null);

	const labelOf = (one: Value | '' | undefined) =>
		choices.find((choice) => choice.value === one)?.label ?? '';
	const found = $derived(
		choices.filter((choice) => fits(typed ?? '', `${choice.label} ${choice.detail ?? ''}`))
	);
	const extra = $derived(typed?.trim() ? (made?.(typed.trim()) ?? null) : null);
	const shown = $derived([...found.slice(0, MOST), ...(extra ? [extra] : [])]);
	const groups = $derived(
		[...new Set(shown.map((choice) => choice.group))].map((name) => ({
			name,
			choices: shown.filter((choice) => choice.group === name)
		}))
	);
	function chosen(next: string) {
		if (!next) return;
		typed = null;
		if (choose) choose(next as Value);
		else value = next as Value;
	}
</script>

<div class={more}>
	{#if !inline}<label class="label" for={id}>{label}</label>{/if}
	<Combobox.Root
		type="single"
		bind:open
		bind:value={() => (choose ? '' : (value ?? '')), chosen}
		items={shown}
		allowDeselect={false}
		onOpenChange={(opens) => opens || (typed = null)}
		{disabled}
	>
		<span class="relative flex">
			<Combobox.Input bind:ref={input} {id}>
				<!-- What stands in the field is ours: the library would write what was chosen there. -->
				{#snippet child({ props })}<input
						{...props}
						class="field pr-8"
						autocomplete="off"
						spellcheck="false"
						aria-label={inline ? label : undefined}
						{placeholder}
						{disabled}
						value={typed ?? labelOf(value)}
						onclick={() => (open = true)}
						oninput={(event) => {
							typed = event.currentTarget.value;
							open = true;
						}}
					/>{/snippet}
			</Combobox.Input>
			<Combobox.Trigger
				class="absolute inset-y-0 right-0 grid w-8 place-items-center text-ink-2"
				aria-label="Show all"><ChevronDown size={14} aria-hidden="true" /></Combobox.Trigger
			>
		</span>
		<Combobox.Portal>
			<Combobox.Content
				class="droplist max-h-[46vh] w-[max(var(--bits-combobox-anchor-width),320px)] max-w-[92vw]"
				sideOffset={2}
				aria-label={label}
			>
				{#each groups as group (group.name)}
					<Combobox.Group>
						{#if group.name}<Combobox.GroupHeading class="px-3 pt-1.5 text-[12px] text-ink-2"
								>{group.name}</Combobox.GroupHeading
							>{/if}
						{#each group.choices as choice (choice.value)}
							<Combobox.Item value={choice.value} label={choice.label} class="droplist-item items-baseline">
								<Check
									size={14}
									class="shrink-0 self-center {!choose && choice.value === value ? '' : 'invisible'}"
									aria-hidden="true"
								/><span class="max-w-[75%] shrink-0 truncate">{choice.label}</span>
								{#if choice.detail}<span class="ml-auto min-w-0 truncate pl-3 text-[12px] text-ink-2"
										>{choice.detail}</span
									>{/if}
							</Combobox.Item>
						{/each}
					</Combobox.Group>
				{:else}
					<p class="px-3 py-1 text-ink-2">Nothing here is called that.</p>
				{/each}
				{#if found.length > MOST}<p class="px-3 py-1 text-[12px] text-ink-2">
						{found.length - MOST} more; type on to find them.
					</p>{/if}
			</Combobox.Content>
		</Combobox.Portal>
	</Combobox.Root>
	{#if required}<input
			class="sr-only"
			tabindex="-1"
			aria-hidden="true"
			required
			value={value ?? ''}
			onfocus={() => input?.focus()}
		/>{/if}
</div>
