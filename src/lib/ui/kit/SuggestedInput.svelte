<script lang="ts">
	import { Combobox } from 'bits-ui';
	import { fits } from '../../core/words/plain';

	/**
	 * A field for any text that shows what is usually put there. What was typed stands first and is what Enter and Tab
	 * leave in the field, unless one went down to a suggestion. Keys that the list does not need go to `onkeydown`.
	 */
	let {
		label,
		value = $bindable(),
		suggestions,
		input = $bindable(),
		onkeydown,
		onblur,
		class: more = ''
	}: {
		label: string;
		value: string;
		suggestions: readonly string[];
		input?: HTMLInputElement | undefined;
		/** Asked with `value` as it is to stay. */
		onkeydown?: (event: KeyboardEvent) => void;
		onblur?: () => void;
		class?: string;
	} = $props();

	/** Most suggestions that are shown; more are found by typing on. */
	const MOST = 60;
	let open = $state(false);
	/** Whether something was typed: before, all suggestions show, whatever stands in the field. */
	let typing = $state(false);
	let lit = $state<string | null>(null);
	const found = $derived(
		suggestions.filter((one) => one !== value && (!typing || fits(value, one))).slice(0, MOST)
	);
	const shown = $derived(
		suggestions.includes(value) && !typing ? suggestions.slice(0, MOST) : [value, ...found]
	);

	/** The keys of the list itself; all others are the field's. */
	const LIST = ['ArrowDown', 'ArrowUp', 'PageDown', 'PageUp'];
	function keys(event: KeyboardEvent, ofList: (event: KeyboardEvent) => void) {
		if (LIST.includes(event.key)) {
			event.stopPropagation();
			ofList(event);
			return;
		}
		if ((event.key === 'Enter' || event.key === 'Tab') && open && lit !== null) value = lit;
		onkeydown?.(event);
	}
</script>

<Combobox.Root
	type="single"
	bind:open
	bind:value={() => value, (next) => next && ((value = next), (open = false), input?.focus())}
	items={shown.map((one) => ({ value: one, label: one }))}
	allowDeselect={false}
>
	<Combobox.Input>
		{#snippet child({ props })}
			{@const list = props as {
				onkeydown: (event: KeyboardEvent) => void;
				oninput: (event: Event & { currentTarget: HTMLInputElement }) => void;
			}}
			<input
				{...props}
				bind:this={input}
				class={more}
				aria-label={label}
				autocomplete="off"
				spellcheck="false"
				{value}
				onfocus={() => (open = true)}
				oninput={(event) => {
					value = event.currentTarget.value;
					typing = open = true;
					list.oninput(event);
				}}
				onkeydown={(event) => keys(event, list.onkeydown)}
				{onblur}
			/>
		{/snippet}
	</Combobox.Input>
	{#if suggestions.length}
		<Combobox.Portal>
			<!-- Pressing on the list leaves the field where it is, so that nothing is taken for left. -->
			<Combobox.Content
				class="droplist max-h-[40vh] max-w-[92vw] min-w-[var(--bits-combobox-anchor-width)] text-[13px]"
				sideOffset={2}
				aria-label="{label}: suggestions"
				onpointerdown={(event) => event.preventDefault()}
			>
				{#each shown as one (one)}
					<Combobox.Item
						value={one}
						label={one}
						class="droplist-item items-baseline"
						onHighlight={() => (lit = one)}
						onUnhighlight={() => lit === one && (lit = null)}
						><span class="truncate {suggestions.includes(one) ? '' : 'text-ink-2'}"
							>{one || 'Leave empty'}</span
						>{#if one && !suggestions.includes(one)}<span class="ml-auto text-[12px] text-ink-2"
								>as typed</span
							>{/if}</Combobox.Item
					>
				{/each}
			</Combobox.Content>
		</Combobox.Portal>
	{/if}
</Combobox.Root>
