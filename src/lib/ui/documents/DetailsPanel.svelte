<script lang="ts">
	import { STATE_LABEL } from '../../core/documents/rows';
	import { kindWord } from '../../core/files/kinds';
	import { releaseNumber } from '../../core/releases';
	import { ended } from '../../core/words/sentences';
	import { dayText, plural, sizeText, whenText } from '../platform/words';
	import PlannedStages from '../register/PlannedStages.svelte';
	import type { DocumentView } from './document-view';
	import Revision from './Revision.svelte';

	/** What a document is: its identity, its file, and who has it. */
	let { view }: { view: DocumentView } = $props();
	const row = $derived(view.row);
	const issued = $derived(view.versions.find((version) => version.issued));
	const kind = $derived(
		`${row.kind === 'file' ? '' : `live ${row.kind}, handed in as `}${kindWord(row.mediaType, row.fileName)}`
	);
</script>

<dl
	class="grid grid-cols-[104px_1fr] px-3 py-1 [&>dd]:min-w-0 [&>dd]:border-b [&>dd]:border-rule-2 [&>dd]:py-1.5 [&>dd]:break-words [&>dt]:border-b [&>dt]:border-rule-2 [&>dt]:py-1.5 [&>dt]:text-ink-2"
>
	<dt>Number</dt>
	<dd class="font-mono text-[12px] leading-[20px]">{row.number}</dd>
	<dt>Title</dt>
	<dd class="font-semibold">{row.title}</dd>
	<dt>Revision</dt>
	<dd><Revision label={row.label} issued={row.issued} /> {row.issued ? 'issued' : 'working save'}</dd>
	<dt>State</dt>
	<dd>{STATE_LABEL[row.state]}</dd>
	<dt>Last issued</dt>
	<dd>
		{#if issued}<Revision label={issued.label} issued /> on {dayText(issued.at)}{issued.release
				? ` with ${releaseNumber(issued.release)}`
				: ''}{:else}not yet{/if}
	</dd>
	<PlannedStages number={row.number} />
	<dt>In hand</dt>
	<dd>
		{#if row.lock}{row.lock.mine ? 'You have it' : `${row.lock.holder} has it`} since {whenText(
				row.lock.since
			)}{row.lock.purpose ? `, for “${row.lock.purpose}”` : ''}{:else}nobody has it{/if}
	</dd>
	{#if row.frozen}<dt>Frozen</dt>
		<dd>by {row.frozen.by}: {ended(row.frozen.reason)}</dd>{/if}
	<dt>File</dt>
	<dd>{row.fileName}</dd>
	<dt>Kind</dt>
	<dd>{kind}</dd>
	<dt>Size</dt>
	<dd>{sizeText(row.size)}</dd>
	{#if view.pages}<dt>Sheets</dt>
		<dd>{view.pages}</dd>{/if}
	<dt>Versions</dt>
	<dd>{plural(row.versions, 'version')}</dd>
	<dt>Changed</dt>
	<dd>{whenText(row.changedAt)}{row.changedBy ? ` by ${row.changedBy}` : ''}</dd>
	<dt>Your access</dt>
	<dd class="font-semibold">{view.levelLabel}</dd>
	{#if row.tags.length}<dt>Tags</dt>
		<dd>{row.tags.join(' · ')}</dd>{/if}
	<dt>SHA-256</dt>
	<dd class="font-mono text-[11px]">{row.hash}</dd>
</dl>
