<script lang="ts">
	import { goto } from '$app/navigation';
	import EllipsisIcon from '@lucide/svelte/icons/ellipsis';
	import { addressOf } from '../../client/cupboard';
	import type { VersionRow } from '../../core/documents/rows';
	import { releaseNumber } from '../../core/releases';
	import Menu from '../kit/Menu.svelte';
	import { fetchFile } from '../platform/fetch-file';
	import { whenText } from '../platform/words';
	import Revision from './Revision.svelte';

	/** The versions of a document with what changed, newest first, narrow enough to stand beside it. */
	let {
		document,
		versions,
		shown,
		code,
		mayDownload,
		restore
	}: {
		document: string;
		versions: readonly VersionRow[];
		/** The label of the one that is on screen. */
		shown: string;
		code: string;
		mayDownload: boolean;
		restore: ((label: string) => void) | null;
	} = $props();
	const wayTo = (label: string) => `/${code}/document/${document}?version=${label}`;
	const compare = (from: string, to: string) =>
		void goto(`/${code}/document/${document}/compare?from=${from}&to=${to}`);
	const save = (label: string) => fetchFile(addressOf('versionFile', { document, label, download: '' }));
	/** What became of it outside. */
	const became = (version: VersionRow) =>
		[
			version.release ? `in ${releaseNumber(version.release)}` : '',
			version.verdict ? `client: ${version.verdict}` : '',
			version.lockKept ? 'lock kept' : ''
		]
			.filter(Boolean)
			.join(' · ');
</script>

<ul aria-label="Versions">
	{#each versions as version, i (version.label)}
		{@const before = versions[i + 1]}
		<li
			class="grid grid-cols-[66px_1fr_28px] items-start gap-x-2 border-b border-rule-2 px-2.5 py-1.5 {version.label ===
			shown
				? 'bg-act-soft'
				: ''}"
		>
			<a
				class="pt-0.5"
				href={wayTo(version.label)}
				aria-current={version.label === shown ? 'true' : undefined}
				><Revision label={version.label} issued={version.issued} /></a
			>
			<span class="min-w-0">
				<span class="block break-words">{version.note || 'no note'}</span>
				<span class="block text-[12px] text-ink-2"
					>{version.by ?? ''} · {whenText(version.at)}{became(version) ? ` · ${became(version)}` : ''}</span
				>
			</span>
			<Menu
				class="grid h-6 w-7 cursor-pointer place-items-center rounded-sm text-ink-2 hover:bg-rule-2"
				name="What to do with {version.label}"
				groups={[
					[
						{ word: 'Open', act: () => void goto(wayTo(version.label)) },
						before && {
							word: `Compare with ${before.label} before it`,
							act: () => compare(before.label, version.label)
						},
						i > 0 && {
							word: `Compare with the newest, ${versions[0]!.label}`,
							act: () => compare(version.label, versions[0]!.label)
						},
						mayDownload && { word: 'Download', act: () => save(version.label) }
					],
					[restore && i > 0 && { word: 'Restore as a new version', act: () => restore(version.label) }]
				]}>{#snippet face()}<EllipsisIcon size={15} aria-hidden="true" />{/snippet}</Menu
			>
		</li>
	{/each}
</ul>
<p class="px-2.5 py-2 text-[12px]">
	<a class="link" download href={addressOf('documentHistory', { document })}>Export CSV</a>
</p>
