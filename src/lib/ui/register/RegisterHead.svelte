<script lang="ts">
	import { goto } from '$app/navigation';
	import { addressOf, type AnswerOf } from '../../client/cupboard';
	import Menu from '../kit/Menu.svelte';
	import { fetchFile } from '../platform/fetch-file';
	import { plural } from '../platform/words';
	import { askedFor, type Asking, type Shown } from './choices';

	/** What the register holds, and what can be done with it or with the lines that are ticked. */
	let {
		frame,
		shown,
		summary,
		ticked,
		documents,
		total,
		tickAll,
		ask
	}: {
		frame: AnswerOf<'projectFrame'>;
		shown: Shown;
		summary: string;
		/** Ids of the lines that are ticked, and of the documents of these that have one. */
		ticked: string[];
		documents: string[];
		/** How many lines the list has, those that are not here yet included. */
		total: number;
		/** Ticks them all. */
		tickAll: () => void;
		ask: (what: Asking) => void;
	} = $props();

	const { controller } = $derived(frame.me);
	const project = $derived(frame.project.id);
	const exported = (format: 'xlsx' | 'csv' | 'pdf') =>
		fetchFile(addressOf('registerList', { project, format, ...askedFor(shown), order: shown.order }));
</script>

<div class="flex flex-wrap items-center gap-x-3 gap-y-1.5">
	<h1 class="text-[21px]">Register</h1>
	<p class="text-ink-2">{summary}</p>
	<span class="ml-auto flex flex-wrap gap-2">
		{#if ticked.length}<Menu
				label={plural(ticked.length, 'deliverable')}
				class="button"
				groups={[
					ticked.length < total && [
						{ word: `Tick all ${total.toLocaleString('en')} of the list`, act: tickAll }
					],
					documents.length > 0 && [
						{
							word: 'Put in release…',
							hint:
								documents.length < ticked.length
									? `${plural(documents.length, 'document')}; the others have none yet`
									: '',
							act: () => ask({ what: 'release', documents })
						}
					],
					[
						{
							word: 'Move planned days…',
							act: () => ask({ what: 'move', ids: ticked, stage: shown.stage || null, day: null })
						},
						{ word: 'Change…', act: () => ask({ what: 'change', ids: ticked }) },
						{
							word: 'Keep as a template…',
							hint: 'to add the like of them again for another piece of work',
							act: () => ask({ what: 'keep-template', ids: ticked })
						}
					],
					[
						{
							word: 'Take out of the register…',
							act: () => ask({ what: 'remove', ids: ticked }),
							dangerous: true
						}
					]
				]}
			/>{/if}
		<Menu
			label="Export"
			groups={[
				[
					{ word: 'XLSX with the curves', act: () => exported('xlsx') },
					{ word: 'CSV', act: () => exported('csv') },
					{ word: 'PDF report, A3', act: () => exported('pdf') }
				]
			]}
		/>
		{#if controller}
			<Menu
				label="More"
				groups={[
					[
						{ word: 'Import a list…', act: () => ask({ what: 'import' }) },
						{ word: 'Add from a template…', act: () => ask({ what: 'template' }) },
						{
							word: 'What is missing…',
							hint: 'numbers within a series, documents that nobody planned',
							act: () => ask({ what: 'gaps' })
						},
						{
							word: 'Stages…',
							hint: 'what deliverables pass, in the settings',
							act: () => void goto(`/${frame.project.code.toLowerCase()}/settings/register`)
						}
					]
				]}
			/>
			<button class="button button-act" onclick={() => ask({ what: 'add' })}>Add deliverables</button>
		{/if}
	</span>
</div>
