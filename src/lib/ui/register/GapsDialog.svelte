<script lang="ts">
	import { onMount } from 'svelte';
	import { SvelteSet } from 'svelte/reactivity';
	import { lastPartOf, WIDEST_GAP } from '../../core/register';
	import { cupboard, type AnswerOf } from '../../client/cupboard';
	import Dialog from '../kit/Dialog.svelte';
	import Form from '../kit/Form.svelte';
	import Table from '../kit/Table.svelte';
	import { NUMBER_COLUMN } from '../kit/table';
	import { attempt } from '../platform/api';
	import { plural } from '../platform/words';
	import { toast } from '../kit/toast';
	import type { Stages } from './choices';

	/** What the register misses; documents that nobody planned can be put in it. */
	let {
		open = $bindable(false),
		project,
		frame,
		stages,
		done
	}: {
		open: boolean;
		project: string;
		frame: AnswerOf<'projectFrame'>;
		stages: Stages;
		done: () => Promise<void>;
	} = $props();

	let gaps = $state.raw<AnswerOf<'registerGaps'> | null>(null);
	onMount(() => void attempt(async () => void (gaps = await cupboard.registerGaps({ project }))));
	const selection = new SvelteSet<string>();
	let wanted = $state<string[]>([]);
	type Unplanned = AnswerOf<'registerGaps'>['documents'][number];
	/** So many are put in by one act. */
	const AT_ONCE = 1_000;

	async function plan() {
		const chosen = gaps!.documents.filter((one) => selection.has(one.id));
		for (let i = 0; i < chosen.length; i += AT_ONCE)
			await cupboard.addDeliverables({
				project,
				deliverables: chosen.slice(i, i + AT_ONCE).map(({ number, title, department }) => ({
					number,
					title,
					department: frame.departments.find((one) => one.code === department)?.id ?? null,
					planned: Object.fromEntries(wanted.map((key) => [key, null]))
				}))
			});
		toast(`${plural(chosen.length, 'document')} put in the register.`);
	}
</script>

<Dialog bind:open title="What is missing" wide>
	{#if gaps}
		<section>
			<h3 class="font-semibold">{plural(gaps.missing, 'number')} missing within a series</h3>
			<p class="text-[12px] text-ink-2">
				Between two numbers of the register that are near each other. More than {WIDEST_GAP} in a row count as kept
				free on purpose. “Numbers missing” above the list shows after which deliverable they are missing.
			</p>
			{#if gaps.numbers.length}<ul
					class="mt-1 flex max-h-[110px] flex-wrap gap-x-5 overflow-auto font-mono text-[12px]"
				>
					{#each gaps.numbers as gap (gap.from)}<li>
							{gap.from}{gap.count > 1 ? ` to ${lastPartOf(frame.project.numbering, gap.to)}` : ''}
						</li>{/each}
				</ul>{/if}
		</section>
		<Form
			act={plan}
			{done}
			button="Put {plural(selection.size, 'document')} in the register"
			disabled={!selection.size}
			cancel={() => (open = false)}
		>
			<h3 class="mt-2 font-semibold">{plural(gaps.unplanned, 'document')} that no deliverable names</h3>
			<div class="h-[34vh] min-h-[160px] border border-rule">
				<Table
					label="Documents that nobody planned"
					rows={gaps.documents}
					key={(row) => row.id}
					{selection}
					tickName={(row) => `Tick ${row.number}`}
					empty="Every document stands in the register."
					fills
					columns={[
						NUMBER_COLUMN,
						{ id: 'title', head: 'Title', text: (row: Unplanned) => row.title, by: (row) => row.title },
						{ id: 'type', head: 'Type', text: (row: Unplanned) => row.type, by: (row) => row.type }
					]}
				/>
			</div>
			<fieldset class="flex flex-wrap gap-x-4 gap-y-1">
				<legend class="label">Stages of their plan, without a day yet</legend>
				{#each stages as stage (stage.key)}<label class="flex items-center gap-1.5"
						><input
							type="checkbox"
							class="accent-act"
							bind:group={wanted}
							value={stage.key}
						/>{stage.name}</label
					>{/each}
			</fieldset>
		</Form>
	{:else}<p class="text-ink-2">Counting…</p>{/if}
</Dialog>
