<script lang="ts">
	import ArrowDownIcon from '@lucide/svelte/icons/arrow-down';
	import ArrowUpIcon from '@lucide/svelte/icons/arrow-up';
	import { cupboard, type AnswerOf } from '../../client/cupboard';
	import { exampleRules } from '../../core/numbering/examples';
	import type { NumberingRule } from '../../core/numbering/numbering';
	import { checkRule, examplesOf, MOST_PARTS, MOST_SIGNS, PART_SIGNS } from '../../core/numbering/rule';
	import Form from '../kit/Form.svelte';
	import Select from '../kit/Select.svelte';
	import { toast } from '../kit/toast';
	import { plural } from '../platform/words';
	import { refreshAll } from '../platform/refresh';
	import { draftOf, keyFor, ruleOf, type PartDraft } from './numbering-draft';

	/** How the documents of a project are numbered: its parts, with examples and what of today would not fit. */
	let { project, code, rule }: { project: string; code: string; rule: NumberingRule } = $props();
	// svelte-ignore state_referenced_locally
	let parts = $state<PartDraft[]>(draftOf(rule));
	// svelte-ignore state_referenced_locally
	let separator = $state(rule.separator);
	// svelte-ignore state_referenced_locally
	let digits = $state(rule.serialDigits);
	const meant = $derived(ruleOf($state.snapshot(parts), separator, digits));
	const wrong = $derived(checkRule(meant));
	const changed = $derived(
		JSON.stringify(meant) !== JSON.stringify(ruleOf(draftOf(rule), rule.separator, rule.serialDigits))
	);

	/** What of today fits the rule as it is written now. */
	let tried = $state.raw<AnswerOf<'changeNumbering'> | null>(null);
	/** Milliseconds of quiet after which it is tried. */
	const QUIET = 400;
	$effect(() => {
		const trying = meant;
		if (wrong) return void (tried = null);
		const timer = setTimeout(() => {
			cupboard
				.changeNumbering({ project, rule: trying, trial: true })
				.then((answer) => (tried = trying === meant ? answer : tried))
				.catch(() => (tried = null));
		}, QUIET);
		return () => clearTimeout(timer);
	});

	const departments = $derived(rule.parts.find((part) => part.key === 'department')?.values ?? []);
	/** Rules to begin from. */
	const examples = $derived(exampleRules(code, departments));
	function begin(from: string) {
		const { rule: begun } = examples.find((one) => one.key === from)!;
		parts = draftOf(begun);
		separator = begun.separator;
		digits = begun.serialDigits;
	}
	function move(at: number, by: number) {
		const [part] = parts.splice(at, 1);
		parts.splice(at + by, 0, part!);
	}
	const add = () =>
		parts.push({
			key: keyFor(
				'part',
				parts.map((part) => part.key)
			),
			label: '',
			from: 'letters',
			many: 2,
			codes: ''
		});
	async function submit() {
		const { misfits } = await cupboard.changeNumbering({ project, rule: meant });
		toast(
			misfits
				? `The numbering is changed; ${plural(misfits, 'document')} keep numbers that do not fit it.`
				: 'The numbering is changed.'
		);
		await refreshAll();
	}
</script>

<div class="max-w-[720px] border border-ink bg-sheet p-4">
	<Form act={submit} button="Change the numbering" disabled={wrong !== null || !changed} onPage>
		<div class="flex flex-wrap items-center gap-x-4 gap-y-1">
			<h2 class="text-[16px]">Numbering</h2>
			<Select
				label="Begin from an example"
				placeholder="Begin from an example"
				class="ml-auto w-[230px]"
				choices={examples.map(({ key, label }) => ({ value: key, label }))}
				value=""
				choose={begin}
			/>
		</div>
		<p class="text-[12px] text-ink-2">
			Parts in their order; the serial at the end counts up by itself. New numbers are proposed by it, and
			every number is held against it. Documents keep the numbers they have.
		</p>
		<ul class="space-y-1.5" aria-label="Parts of a number">
			{#each parts as part, i (part.key)}
				<li class="grid grid-cols-[1fr_160px_64px_auto] items-start gap-2 max-sm:grid-cols-2">
					<input class="field" aria-label="Name of part {i + 1}" bind:value={part.label} maxlength="40" />
					<Select
						label="What part {i + 1} is made of"
						choices={[
							{ value: 'codes', label: 'one of these codes' },
							...Object.entries(PART_SIGNS).map(([value, { label }]) => ({
								value: value as keyof typeof PART_SIGNS,
								label
							}))
						]}
						bind:value={part.from}
					/>
					{#if part.from === 'codes'}<span></span>{:else}<input
							class="field"
							type="number"
							min="1"
							max={MOST_SIGNS}
							aria-label="Signs of part {i + 1}"
							bind:value={part.many}
						/>{/if}
					<span class="flex items-center gap-1">
						<button
							type="button"
							class="button"
							aria-label="Part {i + 1} further to the front"
							disabled={i === 0}
							onclick={() => move(i, -1)}><ArrowUpIcon size={14} aria-hidden="true" /></button
						>
						<button
							type="button"
							class="button"
							aria-label="Part {i + 1} further back"
							disabled={i === parts.length - 1}
							onclick={() => move(i, 1)}><ArrowDownIcon size={14} aria-hidden="true" /></button
						>
						<button
							type="button"
							class="link text-[12px]"
							disabled={parts.length === 1}
							onclick={() => parts.splice(i, 1)}>Delete</button
						>
					</span>
					{#if part.from === 'codes'}<textarea
							class="field col-span-full font-mono text-[12px]"
							rows={Math.min(8, Math.max(2, part.codes.split('\n').length))}
							aria-label="Codes of part {i + 1}, one a line: the code, then what it stands for"
							placeholder="TB Terminal building"
							bind:value={part.codes}></textarea>{/if}
				</li>
			{/each}
		</ul>
		<div class="flex flex-wrap items-end gap-3">
			<button type="button" class="button" disabled={parts.length >= MOST_PARTS - 1} onclick={add}
				>Add a part</button
			>
			<label class="w-[110px]"
				><span class="label">Between parts</span><Select
					choices={[
						{ value: '-', label: '- hyphen' },
						{ value: '_', label: '_ low line' },
						{ value: '.', label: '. point' },
						{ value: '/', label: '/ slash' },
						{ value: ' ', label: 'a space' }
					]}
					bind:value={separator}
				/></label
			>
			<label class="w-[120px]"
				><span class="label">Digits of the serial</span><input
					class="field"
					type="number"
					min="1"
					max={MOST_SIGNS}
					bind:value={digits}
				/></label
			>
		</div>
		<div role="status">
			{#if wrong}<p class="text-fault">{wrong}</p>
			{:else}
				<p class="mb-1 font-semibold">Numbers look like this</p>
				<ul>
					{#each examplesOf(meant) as { number, says } (number)}<li class="flex flex-wrap gap-x-3">
							<span class="font-mono">{number}</span><span class="text-[12px] text-ink-2">{says}</span>
						</li>{/each}
				</ul>
				{#if tried}
					{#if tried.misfits}<div class="mt-2 border-l-4 border-lock bg-lock-soft px-3 py-1.5">
							<p>
								<b class="font-semibold"
									>{tried.misfits} of {plural(tried.numbers, 'number')} of today {tried.misfits === 1
										? 'does'
										: 'do'} not fit,</b
								> and stay as they are; a release asks to look at them.
							</p>
							<ul class="text-[12px]">
								{#each tried.named.slice(0, 5) as one (one.number)}<li>
										<span class="font-mono">{one.number}</span>: {one.why}
									</li>{/each}
							</ul>
						</div>
					{:else}<p class="mt-2 text-done">
							{tried.numbers
								? `All ${plural(tried.numbers, 'number')} of today fit.`
								: 'There is no document yet.'}
						</p>{/if}
				{/if}
			{/if}
		</div>
	</Form>
</div>
