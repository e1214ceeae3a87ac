<script lang="ts">
	import type { Mention } from '../../core/remarks/remarks';
	import { fits } from '../../core/words/plain';
	import { cupboard } from '../../client/cupboard';
	import type { Pickable } from '../kit/person';
	import { mentionedOf } from './mentioned';

	/** A field for a remark or answer: typing @ offers who can be mentioned, which is who may look at the document. */
	let {
		document,
		label,
		text = $bindable(''),
		mentions = $bindable([]),
		autofocus = false
	}: {
		document: string;
		label: string;
		text: string;
		mentions: Mention[];
		autofocus?: boolean;
	} = $props();

	let field = $state<HTMLTextAreaElement>();
	let known = $state.raw<Pickable[] | null>(null);
	let offered = $state.raw<Pickable[]>([]);
	let at = $state(0);

	async function typed() {
		const before = text.slice(0, field?.selectionStart ?? 0);
		const word = /(?:^|\s)@([\p{L}\p{M}' -]{0,30})$/u.exec(before)?.[1];
		if (word === undefined) return void (offered = []);
		known ??= await cupboard.mentionable({ document }).then(mentionedOf, () => []);
		// Found as in every picker of people: by the beginnings of words, accents or not.
		offered = known.filter((one) => fits(word, one.name)).slice(0, 6);
		at = 0;
	}
	function take({ kind, id, name }: Pickable) {
		const end = field!.selectionStart;
		const begin = text.lastIndexOf('@', end - 1);
		text = `${text.slice(0, begin)}@${name} ${text.slice(end)}`;
		if (!mentions.some((m) => m.id === id)) mentions = [...mentions, { kind, id, name } as Mention];
		offered = [];
		field!.focus();
	}
	function keys(event: KeyboardEvent) {
		if (!offered.length) return;
		if (event.key === 'ArrowDown') at = (at + 1) % offered.length;
		else if (event.key === 'ArrowUp') at = (at + offered.length - 1) % offered.length;
		else if (event.key === 'Enter' || event.key === 'Tab') take(offered[at]!);
		else if (event.key === 'Escape') offered = [];
		else return;
		event.preventDefault();
		event.stopPropagation();
	}
	$effect(() => {
		if (autofocus) field?.focus();
	});
</script>

<div class="relative">
	<textarea
		class="field"
		aria-label={label}
		bind:this={field}
		bind:value={text}
		oninput={() => void typed()}
		onkeydown={keys}
		maxlength="2000"
		placeholder="@ mentions somebody"></textarea>
	{#if offered.length}<ul
			class="absolute top-full right-0 left-0 z-20 border border-ink bg-sheet shadow-lg"
			role="listbox"
			aria-label="Who to mention"
		>
			{#each offered as one, i (one.id)}<li role="option" aria-selected={i === at}>
					<button
						type="button"
						class="w-full px-2 py-1 text-left {i === at ? 'bg-act-soft' : ''}"
						onmousedown={(event) => event.preventDefault()}
						onclick={() => take(one)}
						>{one.name}{#if one.kind === 'department'}<span class="text-ink-2">, department</span
							>{/if}</button
					>
				</li>{/each}
		</ul>{/if}
</div>
