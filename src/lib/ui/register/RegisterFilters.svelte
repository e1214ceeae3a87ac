<script lang="ts">
	import ChevronLeft from '@lucide/svelte/icons/chevron-left';
	import ChevronRight from '@lucide/svelte/icons/chevron-right';
	import { goto } from '$app/navigation';
	import { cupboard, type AnswerOf } from '../../client/cupboard';
	import type { Grouping } from '../../core/register';
	import Menu from '../kit/Menu.svelte';
	import Select from '../kit/Select.svelte';
	import SelectSeveral from '../kit/SelectSeveral.svelte';
	import { toast } from '../kit/toast';
	import { attempt } from '../platform/api';
	import { paced } from '../platform/paced';
	import { refresh } from '../platform/refresh';
	import { figuresOf, queryOf, type Shown } from './choices';
	import KeepChoice from './KeepChoice.svelte';
	import { ZOOMS } from './strip';

	/** What the register is narrowed to, how it is put in groups, how much of time it shows, and what its signs mean. */
	let {
		frame,
		list,
		choices,
		shown,
		show,
		moved,
		move
	}: {
		frame: AnswerOf<'projectFrame'>;
		list: AnswerOf<'register'>;
		choices: AnswerOf<'registerChoices'>['choices'];
		shown: Shown;
		show: (change: Partial<Shown>) => void;
		/** By how many spans the strip was moved on. */
		moved: number;
		move: (to: number) => void;
	} = $props();

	const { controller } = $derived(frame.me);
	const project = $derived(frame.project.id);
	const types = $derived(frame.project.numbering.parts.find((part) => part.key === 'type')?.values ?? []);
	const zones = $derived(frame.project.numbering.parts.find((part) => part.key === 'zone')?.values ?? []);
	const named = (codes: readonly string[], values: readonly { code: string; name: string }[]) =>
		codes.map((code) => {
			const name = values.find((one) => one.code === code)?.name;
			return { value: code, label: name ? `${code} ${name}` : code };
		});
	const narrow = $derived(
		[
			{
				key: 'department' as const,
				label: 'Department',
				choices: frame.departments.map(({ code, name }) => ({ value: code, label: name }))
			},
			{ key: 'zone' as const, label: 'Zone', choices: named(list.zones, zones) },
			{ key: 'type' as const, label: 'Type', choices: named(list.types, types) },
			{
				key: 'responsible' as const,
				label: 'Responsible',
				choices: list.people.map(({ id, name }) => ({ value: id, label: name }))
			}
		].filter((one) => one.choices.length > 1 || shown[one.key].length)
	);
	const stages = $derived([
		{ value: '', label: 'Stage: all' },
		...list.stages.map(({ key, name }) => ({ value: key, label: name }))
	]);
	const GROUP_WORD: Record<Grouping, string> = {
		none: 'no groups',
		department: 'department',
		zone: 'zone',
		type: 'type',
		responsible: 'responsible person',
		status: 'status'
	};
	const groups = (Object.keys(GROUP_WORD) as Grouping[]).map((value) => ({
		value,
		label: value === 'none' ? 'No groups' : `By ${GROUP_WORD[value]}`
	}));
	let words = $derived(shown.words);
	const search = paced<string>(250, (said) => show({ words: said }));
	const figures = $derived(figuresOf(list.counts, shown.stage || null, list.tellsMissing));
	const narrowed = $derived(
		Boolean(
			shown.only ||
			shown.from ||
			shown.to ||
			shown.words ||
			shown.stage ||
			narrow.some((one) => shown[one.key].length)
		)
	);

	/** On a phone only what narrows stands there. */
	const whenNarrow = (narrows: boolean) => (narrows ? '' : 'max-md:hidden');

	let keeping = $state(false);
	async function end(choice: (typeof choices)[number]) {
		await attempt(async () => {
			await cupboard.endRegisterChoice({ project, choice: choice.id });
			toast(`“${choice.name}” is kept no longer.`);
			await refresh('cupboard:register');
		});
	}
</script>

<div class="mt-2 flex flex-wrap items-center gap-1.5">
	<input
		class="field !w-[170px]"
		type="search"
		aria-label="Narrow by words"
		placeholder="Number, title or person"
		bind:value={words}
		oninput={() => search(words)}
	/>
	{#each narrow as one (one.key)}<SelectSeveral
			label={one.label}
			choices={one.choices}
			values={shown[one.key]}
			choose={(values) => show({ [one.key]: values })}
			class="!w-auto max-w-[190px] {one.key === 'department' ? '' : whenNarrow(shown[one.key].length > 0)}"
		/>{/each}
	{#if stages.length > 2 || shown.stage}<Select
			label="Stage"
			choices={stages}
			value={shown.stage}
			choose={(stage) => show({ stage })}
			class="!w-auto max-w-[190px] {whenNarrow(shown.stage !== '')} {shown.stage
				? '!border-act !bg-act-soft font-semibold'
				: ''}"
		/>{/if}
	{#each figures as one (one.only)}<button
			class="button {shown.only === one.only ? '!border-act !bg-act-soft' : ''}"
			aria-pressed={shown.only === one.only}
			disabled={one.count === 0 && shown.only !== one.only}
			onclick={() => show({ only: shown.only === one.only ? '' : one.only })}
			>{one.word} <b class="font-mono font-semibold">{one.count.toLocaleString('en')}</b></button
		>{/each}
	{#if shown.from || shown.to}<button
			class="button !border-act !bg-act-soft"
			onclick={() => show({ from: '', to: '' })}
			>Due {shown.from ? `from ${shown.from} ` : ''}{shown.to ? `to ${shown.to}` : ''} ×</button
		>{/if}
	{#if narrowed}<button
			class="link"
			onclick={() =>
				show({
					department: [],
					zone: [],
					type: [],
					responsible: [],
					stage: '',
					words: '',
					only: '',
					from: '',
					to: ''
				})}>Show all</button
		>{/if}
	<span class="ml-auto flex flex-wrap items-center gap-1.5">
		{#if choices.length || narrowed}<Menu
				label="Choices"
				class="button"
				groups={[
					choices.length > 0 && {
						head: 'Kept',
						entries: choices.map((one) => ({
							word: one.name,
							hint: one.shared ? 'for the project' : 'for yourself',
							act: () => void goto(`?${one.query}`)
						}))
					},
					[{ word: 'Keep this choice…', act: () => (keeping = true) }],
					choices.some((one) => !one.shared || controller) && {
						head: 'End a choice',
						entries: choices
							.filter((one) => !one.shared || controller)
							.map((one) => ({ word: `End “${one.name}”`, act: () => void end(one) }))
					}
				]}
			/>{/if}
		<Select
			label="Groups"
			choices={groups}
			value={shown.group}
			choose={(group) => show({ group })}
			class="!w-auto"
		/>
		<span class="flex items-center max-md:hidden">
			{#if shown.zoom !== 'all'}<button
					class="button !px-1.5"
					aria-label="Earlier"
					onclick={() => move(moved - 1)}><ChevronLeft size={14} aria-hidden="true" /></button
				>{/if}
			<Select
				label="How much time the strip shows"
				choices={ZOOMS}
				value={shown.zoom}
				choose={(zoom) => {
					move(0);
					show({ zoom });
				}}
				class="!w-auto"
			/>
			{#if shown.zoom !== 'all'}<button
					class="button !px-1.5"
					aria-label="Later"
					onclick={() => move(moved + 1)}><ChevronRight size={14} aria-hidden="true" /></button
				>{/if}
		</span>
	</span>
</div>
<p class="mt-1.5 flex flex-wrap gap-x-4 text-[12px] text-ink-2 max-md:hidden" aria-label="Signs">
	{#each [{ word: 'planned', look: 'fill-sheet stroke-ink' }, { word: 'issued', look: 'fill-ink stroke-ink' }, { word: 'expected', look: 'fill-lock-soft stroke-lock' }] as sign (sign.word)}<span
			class="inline-flex items-center gap-1"
			><svg width="12" height="12" aria-hidden="true"
				><path d="M6 1 L11 6 L6 11 L1 6 Z" class={sign.look} stroke-width="1.2" /></svg
			>{sign.word}</span
		>{/each}<span class="inline-flex items-center gap-1"
		><svg width="16" height="12" aria-hidden="true"
			><line x1="0" x2="16" y1="6" y2="6" class="stroke-fault" stroke-width="1.8" /></svg
		>slip, in working days{controller ? '; drag a planned mark to move its day' : ''}</span
	>
</p>
{#if keeping}<KeepChoice bind:open={keeping} {project} query={queryOf(shown)} {controller} />{/if}
