<script lang="ts">
	import { untrack } from 'svelte';
	import { VERDICT_LABEL, type Verdict } from '../../core/releases';
	import { cupboard, type AnswerOf } from '../../client/cupboard';
	import { queue, type Sending } from '../adding/sending.svelte';
	import Field from '../kit/Field.svelte';
	import Form from '../kit/Form.svelte';
	import Progress from '../kit/Progress.svelte';
	import { attempt } from '../platform/api';
	import { refreshAll } from '../platform/refresh';
	import { Followed } from '../platform/followed.svelte';
	import { plural, sizeText } from '../platform/words';
	import type { PlacedRemarks } from '../remarks/placed.svelte';
	import VerdictChoice, { VERDICT_LOOK } from './VerdictChoice.svelte';

	/** What who answers says of one document: the verdict, what stands on its sheets, and files with marks. Kept as they go. */
	let {
		secret,
		item,
		remarks,
		mayPlace,
		drawn,
		draw
	}: {
		secret: string;
		item: AnswerOf<'passView'>['items'][number];
		remarks: PlacedRemarks;
		/** Whether what is shown has places on which a remark can stand. */
		mayPlace: boolean;
		/** How many marks are drawn on the sheet. */
		drawn: number;
		/** Whether the pointer draws, and turns that on and off; null where nobody may draw. */
		draw: { on: boolean; turn: (on: boolean) => void } | null;
	} = $props();

	/** What a colleague says meanwhile shows here too. */
	const words = new Followed(untrack(() => item.remark));
	$effect(() => words.follow(item.remark));
	let text = $state('');
	let busy = $state(false);
	/** Files on their way, with what is wrong with those that stay out. */
	let going = $state<{ sending: Sending; fault: string }[]>([]);

	/** Does something to the answer, one after the other, and shows what became of it. */
	async function then(doing: () => Promise<unknown>) {
		busy = true;
		await attempt(doing);
		await refreshAll();
		busy = false;
	}
	const keep = (code: Verdict | null) =>
		then(() =>
			cupboard.saveVerdicts({ secret, answers: [{ document: item.documentId, code, remark: words.value }] })
		);
	async function place() {
		const { page, x, y } = remarks.draft!.anchor;
		await cupboard.placeRemark({ secret, document: item.documentId, page, x, y, text });
		remarks.draft = null;
		text = '';
		await refreshAll();
	}
	async function send(files: FileList | null) {
		for (const file of files ?? []) {
			const sending = queue.sendThrough(`/pass/${secret}`, file);
			const one = { sending, fault: '' };
			going.push(one);
			const entry = going.at(-1)!;
			try {
				const upload = await sending.done;
				await cupboard.addMarkedFile({ secret, document: item.documentId, upload });
				going = going.filter((other) => other !== entry);
			} catch (error) {
				entry.fault = (error as Error).message;
			}
		}
		await refreshAll();
	}
	/** What is chosen on the sheet is written about at once. */
	const focusWithin = (element: HTMLElement) => element.querySelector('textarea')?.focus();
	/** The list follows what was chosen on the sheet. */
	$effect(() => {
		const { chosen } = remarks;
		if (chosen !== null) document.getElementById(`placed-${chosen}`)?.scrollIntoView({ block: 'nearest' });
	});
</script>

<section aria-label="Your answer" class="space-y-4 px-4 py-3">
	<div>
		<h2 class="mb-1 text-[15px]">Your verdict</h2>
		{#if item.signed}<span class="inline-block px-3 py-1 font-bold {VERDICT_LOOK[item.code as Verdict]}"
				>{item.code}</span
			>
			<span class="text-ink-2">{VERDICT_LABEL[item.code as Verdict]}, signed by {item.signed.name}</span>
			{#if item.remark}<p class="mt-1">{item.remark}</p>{/if}
		{:else}<VerdictChoice number={item.number} value={item.code} choose={(code) => void keep(code)} />
			{#if item.code}<span class="ml-2 text-ink-2">{VERDICT_LABEL[item.code]}</span>{/if}
			<div class="mt-2">
				<Field
					label="Remark on the whole{(item.code === 'C' || item.code === 'D') &&
					!(item.placed.length || drawn)
						? '; say why, here or on the sheet'
						: ''}"
					name="remark"
					lines={2}
					bind:value={words.value}
					left={() => void keep(item.code)}
				/>
			</div>{/if}
	</div>
	<div>
		<h2 class="mb-1 text-[15px]">Remarks on the sheet</h2>
		{#if !item.signed && mayPlace && !remarks.draft}<button
				class="button mb-2"
				aria-pressed={remarks.picking}
				onclick={() => (remarks.picking = !remarks.picking)}
				>{remarks.picking ? 'Press the place on the sheet…' : 'Place a remark'}</button
			>{/if}
		{#if remarks.draft}<div class="mb-2 border border-ink bg-sheet p-2.5">
				<Form act={place} button="Keep remark" cancel={() => (remarks.draft = null)} disabled={!text.trim()}>
					<div {@attach focusWithin}>
						<Field label="What is to be said at this place" name="text" lines={3} bind:value={text} />
					</div>
				</Form>
			</div>{/if}
		<ol class="space-y-1.5">
			{#each item.placed as one (one.id)}<li
					id="placed-{one.number}"
					class="flex items-start gap-2 border border-rule bg-sheet px-2.5 py-1.5 {remarks.chosen ===
					one.number
						? 'ring-2 ring-plank'
						: ''}"
				>
					<button
						class="link min-w-6 font-mono"
						aria-label="Show remark {one.number} on the sheet"
						onclick={() => (remarks.chosen = one.number)}>{one.number}</button
					>
					<span class="min-w-0 flex-1 break-words whitespace-pre-line"
						>{one.text}<span class="block text-[12px] text-ink-2">page {one.page}</span></span
					>
					{#if !item.signed}<button
							class="link text-[12px]"
							disabled={busy}
							aria-label="Take remark {one.number} back"
							onclick={() => void then(() => cupboard.takeBackRemark({ secret, remark: one.id }))}
							>Take back</button
						>{/if}
				</li>{:else}<li class="text-ink-2">
					{item.signed
						? 'None.'
						: mayPlace
							? 'None yet.'
							: 'This is not shown as a sheet. Send a file with your marks.'}
				</li>{/each}
		</ol>
	</div>
	{#if draw || drawn}<div>
			<h2 class="mb-1 text-[15px]">Drawn on the sheet</h2>
			<p class="text-ink-2">{drawn ? plural(drawn, 'mark') : 'Nothing yet: clouds, arrows, words.'}</p>
			{#if draw}<button class="button mt-1" aria-pressed={draw.on} onclick={() => draw.turn(!draw.on)}
					>{draw.on ? 'Done drawing' : 'Draw on the sheet'}</button
				>{/if}
		</div>{/if}
	<div>
		<h2 class="mb-1 text-[15px]">Marked-up files</h2>
		<ul class="space-y-1">
			{#each item.files as file (file.id)}<li class="flex items-center gap-2">
					<span class="min-w-0 flex-1 truncate">{file.fileName}</span>
					<span class="font-mono text-[12px] text-ink-2">{sizeText(file.size)}</span>
					{#if !item.signed}<button
							class="link text-[12px]"
							disabled={busy}
							aria-label="Take {file.fileName} back"
							onclick={() => void then(() => cupboard.takeBackFile({ secret, file: file.id }))}
							>Take back</button
						>{/if}
				</li>{/each}
			{#each going as { sending, fault }, i (i)}<li>
					<span class="truncate">{sending.file.name}</span>
					{#if fault}<span role="alert" class="block text-fault">{fault}</span>{:else}<Progress
							label="{sending.file.name} on its way"
							value={sending.sent}
							max={sending.file.size}
						/>{/if}
				</li>{/each}
		</ul>
		{#if !item.signed}<label class="button mt-1 cursor-pointer"
				>Send a marked-up file<input
					type="file"
					multiple
					class="sr-only"
					onchange={(event) => {
						void send(event.currentTarget.files);
						event.currentTarget.value = '';
					}}
				/></label
			>{:else if !item.files.length && !going.length}<p class="text-ink-2">None.</p>{/if}
	</div>
	{#if !item.signed}<p class="border-t border-rule pt-3 text-ink-2">
			All of this is kept as you go, and nobody else sees it before you sign.
			<a class="link" href="/pass/{secret}">Sign on the list</a>
		</p>{/if}
</section>
