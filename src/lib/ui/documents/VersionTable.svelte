<script lang="ts">
	import { addressOf } from '../../client/cupboard';
	import type { VersionRow } from '../../core/documents/rows';
	import { releaseNumber } from '../../core/releases';
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

<table class="w-full [&_td]:pr-3 [&_th]:pr-3">
	<thead class="sticky top-0 bg-sheet text-[12px]">
		<tr class="border-b border-rule">
			<th class="py-1 pl-2.5">Rev</th><th>When</th><th class="hidden sm:table-cell">By</th><th
				>What changed</th
			><th class="hidden sm:table-cell"></th><th><span class="sr-only">Do</span></th>
		</tr>
	</thead>
	<tbody>
		{#each versions as version, index (version.label)}
			<tr class="h-[28px] border-b border-rule-2">
				<td class="pl-2.5"><Revision label={version.label} issued={version.issued} /></td>
				<td class="whitespace-nowrap text-ink-2">{whenText(version.at)}</td>
				<td class="hidden whitespace-nowrap sm:table-cell">{version.by ?? ''}</td>
				<td class="w-1/2 max-w-0 truncate" title={version.note}>{version.note}</td>
				<td class="hidden text-[12px] whitespace-nowrap text-ink-2 sm:table-cell">
					{version.verdict
						? `client: ${version.verdict}`
						: version.release
							? `in ${releaseNumber(version.release)}`
							: version.lockKept
								? 'lock kept'
								: ''}
				</td>
				<td class="pr-2.5 text-right text-[12px] whitespace-nowrap">
					<a class="link" href="/{project}/document/{document}?version={version.label}">Open</a>
					{#if mayDownload}<a
							class="link ml-2"
							download
							href={addressOf('versionFile', { document, label: version.label, download: '' })}>Download</a
						>{/if}
					{#if index < versions.length - 1}<a
							class="link ml-2"
							href="/{project}/document/{document}/compare?from={versions[index + 1]!
								.label}&to={version.label}">Compare</a
						>{/if}
					{#if restore && index > 0}<button class="link ml-2" onclick={() => restore(version.label)}
							>Restore</button
						>{/if}
				</td>
			</tr>
		{/each}
	</tbody>
</table>
<p class="px-2.5 py-1.5 text-[12px]">
	<a class="link" download href={addressOf('documentHistory', { document })}>Export CSV</a>
</p>
