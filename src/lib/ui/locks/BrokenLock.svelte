<script lang="ts">
	import { cupboard } from '../../client/cupboard';
	import { attempt } from '../platform/api';
	import type { DocumentView } from '../documents/document-view';
	import { ended } from '../../core/words/sentences';
	import { whenText } from '../platform/words';

	/** Tells the former holder of a broken lock what happened, until they have answered (L5). */
	let {
		view,
		bring,
		changed
	}: {
		view: DocumentView;
		/** Opens the dialog that hands in what one has. */
		bring: () => void;
		changed: () => void;
	} = $props();
	const broken = $derived(view.broken!);
	const since = $derived(view.versions.filter((v) => v.at > broken.at));

	async function nothing() {
		if (await attempt(() => cupboard.answerBrokenLock({ document: view.row.id }))) changed();
	}
</script>

<div
	role="status"
	class="flex flex-wrap items-baseline gap-x-3 gap-y-1 border-l-4 border-lock bg-lock-soft px-3 py-1.5"
>
	<p class="min-w-[220px] flex-1">
		<b class="font-semibold">{broken.by} broke your lock</b>
		{whenText(broken.at)}: {ended(broken.reason)}
		{since.length
			? `Since then ${[...new Set(since.map((v) => v.by))].join(', ')} stored ${since
					.map((v) => v.label)
					.reverse()
					.join(', ')}.`
			: ''}
		What you have is not lost: bring it, and it is kept beside.
	</p>
	<span class="flex gap-1.5">
		<button class="button" onclick={bring}>Bring what you have…</button>
		<button class="button" onclick={nothing}>I have nothing to bring</button>
	</span>
</div>
