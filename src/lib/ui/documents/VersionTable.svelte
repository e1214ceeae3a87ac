<script lang="ts">
	import { addressOf } from '../../client/cupboard';
	import type { VersionRow } from '../../core/documents/rows';
	import { releaseNumber } from '../../core/releases';
	import Table from '../kit/Table.svelte';
	import Revision from './Revision.svelte';
	import { whenText } from '../platform/words';

	/** The versions of a document, newest first, each to open, download or restore. */
	let {
		document,
		versions,
		project,
		mayDownload,
		restore
	}: {
		document: string;
		versions: VersionRow[];
		project: string;
		mayDownload: boolean;
		restore: ((label: string) => void) | null;
	} = $props();
</script>

<Table
	label="Versions"
	rows={versions}
	key={(version) => version.label}
	empty="There is no version yet."
	columns={[
		{ id: 'rev', head: 'Rev', cell: revision },
		{
			id: 'when',
			head: 'When',
			text: (version) => whenText(version.at),
			class: 'whitespace-nowrap text-ink-2'
		},
		{ id: 'by', head: 'By', text: (version) => version.by ?? '', class: 'whitespace-nowrap', from: 'sm' },
		{ id: 'note', head: 'What changed', cell: note, class: 'w-1/2 max-w-0' },
		{
			id: 'became',
			head: 'What became of it',
			quiet: true,
			text: (version) =>
				version.verdict
					? `client: ${version.verdict}`
					: version.release
						? `in ${releaseNumber(version.release)}`
						: version.lockKept
							? 'lock kept'
							: '',
			class: 'text-[12px] whitespace-nowrap text-ink-2',
			from: 'sm'
		},
		{ id: 'do', head: 'Do', quiet: true, cell: acts, class: 'text-[12px] whitespace-nowrap', right: true }
	]}
/>
<p class="px-2.5 py-1.5 text-[12px]">
	<a class="link" download href={addressOf('documentHistory', { document })}>Export CSV</a>
</p>

{#snippet revision(version: VersionRow)}<Revision label={version.label} issued={version.issued} />{/snippet}
{#snippet note(version: VersionRow)}<span class="block truncate" title={version.note}>{version.note}</span
	>{/snippet}
{#snippet acts(version: VersionRow)}{@const before = versions[versions.indexOf(version) + 1]}<a
		class="link"
		href="/{project}/document/{document}?version={version.label}">Open</a
	>
	{#if mayDownload}<a
			class="link ml-2"
			download
			href={addressOf('versionFile', { document, label: version.label, download: '' })}>Download</a
		>{/if}
	{#if before}<a
			class="link ml-2"
			href="/{project}/document/{document}/compare?from={before.label}&to={version.label}">Compare</a
		>{/if}
	{#if restore && version !== versions[0]}<button class="link ml-2" onclick={() => restore(version.label)}
			>Restore</button
		>{/if}{/snippet}
