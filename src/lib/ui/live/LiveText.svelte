<script lang="ts">
	import { goto } from '$app/navigation';
	import {
		applySuggestion,
		applySuggestions,
		revertSuggestion,
		revertSuggestions,
		selectSuggestion
	} from '@handlewithcare/prosemirror-suggest-changes';
	import Tabs from '../kit/Tabs.svelte';
	import type { Command, EditorState } from 'prosemirror-state';
	import type { EditorView } from 'prosemirror-view';
	import { TextSelection } from 'prosemirror-state';
	import { onMount, untrack } from 'svelte';
	import { ySyncPluginKey } from 'y-prosemirror';
	import { toast } from '../kit/toast';
	import { lastingPosition, passagesIn } from '../../core/text/passages';
	import { suggestionsIn, type Suggestion } from '../../core/text/suggestions';
	import { addressOf, cupboard } from '../../client/cupboard';
	import { attempt, sendFile, uploadAddress } from '../platform/api';
	import RemarksPanel from '../remarks/RemarksPanel.svelte';
	import AuthorsPanel from './AuthorsPanel.svelte';
	import LiveBar from './LiveBar.svelte';
	import type { LiveDocument } from './live-document';
	import { LiveLine } from './line.svelte';
	import LinkDialog from './LinkDialog.svelte';
	import SuggestionList from './SuggestionList.svelte';
	import TakeAsDialog from './TakeAsDialog.svelte';
	import { insertDocumentLink, insertPicture, setLink } from './text-commands';
	import { openEditor } from './text-editor';
	import TextToolbar from './TextToolbar.svelte';
	import './live-text.css';

	/** A text that several write at once: the sheet, who is here, and what is suggested beside it. */
	let {
		room,
		mode,
		me,
		document: id,
		number,
		title,
		code,
		versions,
		mayDownload,
		remarks,
		more
	}: LiveDocument & {
		title: string;
	} = $props();

	let host = $state<HTMLElement>();
	let line = $state.raw<LiveLine | null>(null);
	let view: EditorView | null = null;
	let editor = $state.raw<EditorState | null>(null);
	let choosesToSuggest = $state(false);
	let linking = $state(false);
	let taking = $state(false);
	let tab = $state('remarks');
	/** Beside the text where there is room; over it on a phone, when asked for. */
	let beside = $state(false);
	let changes = $state(0);
	let names = $state<Record<string, string>>({});
	const suggesting = $derived(mode === 'suggest' || choosesToSuggest);
	const suggestions = $derived(editor ? suggestionsIn(editor.doc) : []);

	onMount(() => {
		let closed = false;
		let open: LiveLine | null = null;
		const start = async () => {
			open = new LiveLine(room, me);
			line = open;
			await open.ready();
			if (closed) return;
			view?.destroy();
			view = openEditor(host!, open, `Text of ${number}`, {
				picture: (content) => addressOf('livePictureFile', { document: id, content }),
				mode: () => mode,
				suggesting: () => suggesting,
				changed(state) {
					if (state.doc !== editor?.doc) changes++;
					editor = state;
				},
				notSuggested: () => toast('This cannot be suggested; words can be put in, taken out and styled.'),
				remarked: choose,
				followLink: (document) => void goto(`/${code}/document/${document}`),
				pictures: (files) => files.forEach((file) => void addPicture(file))
			});
			editor = view.state;
		};
		void start();
		return () => {
			closed = true;
			view?.destroy();
			open?.close();
		};
	});
	$effect(() => {
		// Whether one may type has changed: the view asks again.
		void mode;
		view?.setProps({});
	});
	$effect(() => {
		for (const one of line?.people ?? []) names[one.id] = one.name;
	});
	/** Names of people who suggested something and are not here now. */
	$effect(() => {
		if (suggestions.every((s) => names[s.author])) return;
		void cupboard
			.liveNames({ document: id })
			.then(({ people }) => people.forEach((p) => (names[p.id] = p.name)))
			.catch(() => {});
	});

	function run(command: Command) {
		if (!view) return;
		command(view.state, (tr) => view!.dispatch(tr), view);
		view.focus();
	}
	async function addPicture(file: File) {
		const content = await attempt(async () => {
			const { upload } = await sendFile(uploadAddress(code, file.name || 'picture.png'), file, () => {}).done;
			return (await cupboard.addLivePicture({ document: id, upload })).content;
		});
		if (content) run(insertPicture(content, file.name.replace(/\.[^.]+$/, '')));
	}
	function decide(take: boolean, one?: Suggestion) {
		if (!view) return;
		const command = one
			? (take ? applySuggestion : revertSuggestion)(one.id)
			: take
				? applySuggestions
				: revertSuggestions;
		command(view.state, (tr) => view!.dispatch(tr));
	}
	/** Begins a remark on the words that are selected. */
	function remarkOnWords() {
		if (!view || view.state.selection.empty)
			return void toast('Select the words first, then remark on them.');
		const { from, to } = view.state.selection;
		const { mapping } = (ySyncPluginKey.getState(view.state) as { binding: { mapping: never } }).binding;
		const lasting = (at: number) => lastingPosition(line!.doc, at, mapping);
		remarks.begin(
			{ on: 'passage', from: lasting(from), to: lasting(to) },
			view.state.doc.textBetween(from, to, ' ')
		);
		tab = 'remarks';
	}
	const passages = $derived(editor ? passagesIn(editor.doc) : null);
	/** What is chosen beside the text comes into view. */
	$effect(() => {
		const row = remarks.rows.find((r) => r.number === remarks.chosen);
		const at = untrack(() => (row?.anchor.on === 'passage' ? passages?.get(row.anchor.mark) : undefined));
		if (!at || !view) return;
		const { doc, tr } = view.state;
		view.dispatch(tr.setSelection(TextSelection.create(doc, at.from, at.to)).scrollIntoView());
	});
	function choose(mark: string) {
		const row = remarks.rows.find((r) => r.anchor.on === 'passage' && r.anchor.mark === mark);
		if (!row) return;
		remarks.chosen = row.number;
		[tab, beside] = ['remarks', true];
	}
	function show(one: Suggestion) {
		run(selectSuggestion(one.id));
	}
</script>

<div class="flex h-full flex-col">
	<LiveBar {line} {me}>
		{#snippet mine()}
			{#if mode === 'write'}<div class="flex" role="radiogroup" aria-label="What typing does">
					{#each [[false, 'Write'], [true, 'Suggest']] as const as [value, word] (word)}<button
							role="radio"
							aria-checked={choosesToSuggest === value}
							class="button rounded-none {choosesToSuggest === value ? '!border-act !bg-act-soft' : ''}"
							onclick={() => (choosesToSuggest = value)}>{word}</button
						>{/each}
				</div>
			{:else if mode === 'suggest'}<span class="tag bg-wait-soft text-wait">You suggest here</span>
			{:else}<span class="tag bg-rule-2">You read here</span>{/if}
		{/snippet}
		{#if mayDownload}<button class="button" onclick={() => (taking = true)}>Export…</button>{/if}
		<button class="button md:hidden" aria-expanded={beside} onclick={() => (beside = !beside)}
			>{beside ? 'Text' : `Remarks ${remarks.open.length}`}</button
		>
	</LiveBar>
	{#if editor && mode !== 'read'}<TextToolbar
			{editor}
			{run}
			{suggesting}
			addPicture={(file) => void addPicture(file)}
			addLink={() => (linking = true)}
		/>{/if}
	<div class="relative flex min-h-0 flex-1">
		<!-- svelte-ignore a11y_no_noninteractive_tabindex -->
		<div
			class="min-w-0 flex-1 overflow-auto bg-film p-3 md:p-6"
			role="region"
			aria-label="Text of {number}"
			tabindex="0"
		>
			<div
				class="live-text mx-auto max-w-[820px] border border-rule bg-paper text-paper-ink shadow-sm"
				bind:this={host}
			>
				{#if !editor}<p class="p-8" role="status">opening {title}</p>{/if}
			</div>
		</div>
		{#snippet remarksPanel()}<RemarksPanel
				{remarks}
				titled={false}
				table="/{code}/document/{id}/remarks"
				label={versions[0]!.label}
				newest
				gone={(row) => row.anchor.on === 'passage' && passages !== null && !passages.has(row.anchor.mark)}
				compose={{ label: 'On the selected words', run: remarkOnWords }}
			/>{/snippet}
		{#snippet suggestionsPanel()}<SuggestionList
				{suggestions}
				{names}
				me={me.id}
				mayDecide={mode === 'write'}
				{show}
				{decide}
			/>{/snippet}
		{#snippet authorsPanel()}<AuthorsPanel document={id} {versions} {changes} />{/snippet}
		<Tabs
			bind:value={tab}
			class="{beside
				? 'absolute inset-0 z-10 flex'
				: 'hidden'} shrink-0 border-l border-rule bg-film md:static md:flex md:w-[320px]"
			tabs={[
				{ value: 'remarks', word: `Remarks ${remarks.open.length}`, panel: remarksPanel },
				{ value: 'suggestions', word: `Suggestions ${suggestions.length}`, panel: suggestionsPanel },
				{ value: 'authors', word: 'Who wrote what', panel: authorsPanel },
				...more
			]}
		/>
	</div>
</div>
{#if linking}<LinkDialog
		bind:open={linking}
		project={code}
		toDocument={(document, at) => run(insertDocumentLink(document, at))}
		toAddress={(href) => run(setLink(href))}
	/>{/if}
{#if taking}<TakeAsDialog bind:open={taking} document={id} {number} text={editor?.doc ?? null} />{/if}
