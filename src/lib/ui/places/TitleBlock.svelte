<script lang="ts">
	import Tabs from '../kit/Tabs.svelte';
	import { toast } from '../kit/toast';
	import type { Level } from '../../core/access/levels';
	import { STATE_LABEL } from '../../core/documents/rows';
	import { releaseNumber } from '../../core/releases';
	import { addressOf, cupboard } from '../../client/cupboard';
	import { attempt } from '../platform/api';
	import DocumentActions from '../documents/DocumentActions.svelte';
	import { allows } from '../../core/access/levels';
	import type { DocumentView } from '../documents/document-view';
	import AccessPanel from '../documents/AccessPanel.svelte';
	import TrailPanel from '../trail/TrailPanel.svelte';
	import Revision from '../documents/Revision.svelte';
	import SideVersions from '../documents/SideVersions.svelte';
	import VersionTable from '../documents/VersionTable.svelte';
	import { kindWord } from '../../core/files/kinds';
	import { sizeText } from '../platform/words';

	/** The title block of the chosen document: what it is, its versions and trail, what you can do now. */
	let {
		view,
		tab = $bindable('versions'),
		project,
		code,
		controller,
		outsideLevel,
		retentionDays,
		changed,
		putInRelease,
		actions = $bindable()
	}: {
		view: DocumentView;
		tab: string;
		project: string;
		code: string;
		controller: boolean;
		outsideLevel: Level | null;
		retentionDays: number;
		changed: () => void;
		putInRelease: () => void;
		actions?: ReturnType<typeof DocumentActions>;
	} = $props();

	const row = $derived(view.row);
	const openSides = $derived(view.sides.filter((s) => s.state === 'open').length);
	const issued = $derived(view.versions.find((v) => v.issued));
	/** How many reach it, once they are listed. */
	let reached = $state<number | null>(null);
	$effect(() => {
		void row.id;
		reached = null;
	});

	async function restore(label: string) {
		const made = await attempt(() => cupboard.restoreVersion({ document: row.id, label }));
		if (!made) return;
		toast.success(`${label} is restored as ${made.label}; every version in between is kept.`);
		changed();
	}
	const canRestore = $derived(view.can.restoreVersion.may);
</script>

<section
	aria-label="Title block of {row.number}"
	class="grid max-h-[46vh] shrink-0 overflow-auto border-t-2 border-ink bg-sheet md:h-[228px] md:grid-cols-[minmax(240px,27%)_1fr_minmax(220px,23%)] md:overflow-hidden"
>
	<dl
		class="grid grid-cols-2 content-start border-ink text-[13px] md:overflow-auto md:border-r [&>div]:border-b [&>div]:border-rule [&>div]:px-2.5 [&>div]:py-1"
	>
		<div class="col-span-2">
			<dt class="cell-label">Title</dt>
			<dd class="text-[15px] leading-tight font-semibold">{row.title}</dd>
		</div>
		<div class="border-r">
			<dt class="cell-label">Number</dt>
			<dd class="font-mono text-[12px] leading-[22px]">{row.number}</dd>
		</div>
		<div>
			<dt class="cell-label">Revision</dt>
			<dd>
				<Revision label={row.label} issued={row.issued} />
				<span class="text-[12px] text-ink-2">{row.issued ? 'issued' : 'working save'}</span>
			</dd>
		</div>
		<div class="border-r">
			<dt class="cell-label">State</dt>
			<dd class="font-semibold">{STATE_LABEL[row.state]}</dd>
		</div>
		<div>
			<dt class="cell-label">Last issued</dt>
			<dd>
				{#if issued}<Revision label={issued.label} issued />
					<span class="text-[12px] text-ink-2">{issued.release ? releaseNumber(issued.release) : ''}</span
					>{:else}<span class="text-ink-2">not yet</span>{/if}
			</dd>
		</div>
		<div class="border-r">
			<dt class="cell-label">File</dt>
			<dd>
				{row.kind === 'file' ? '' : `Live ${row.kind}, handed in as `}{kindWord(row.mediaType, row.fileName)}, {sizeText(
					row.size
				)}
			</dd>
		</div>
		<div>
			<dt class="cell-label">Your access</dt>
			<dd class="font-semibold">{view.levelLabel}</dd>
		</div>
		{#if row.tags.length}<div class="col-span-2">
				<dt class="cell-label">Tags</dt>
				<dd class="font-semibold">{row.tags.join(' · ')}</dd>
			</div>{/if}
	</dl>
	{#snippet versionsPanel()}<SideVersions {view} {code} {changed} /><VersionTable
			document={row.id}
			versions={view.versions}
			project={code}
			mayDownload={allows(view.level, 'download')}
			restore={canRestore ? restore : null}
		/>{/snippet}
	{#snippet accessPanel()}<AccessPanel
			document={row.id}
			{code}
			counted={(people) => (reached = people)}
		/>{/snippet}
	{#snippet trailPanel()}<TrailPanel
			of={row.id}
			read={(place, page) => cupboard.trail({ place, ...page })}
			changed="{row.changedAt} {row.lock?.since}"
			{code}
		/>{/snippet}
	<Tabs
		bind:value={tab}
		class="min-h-0 border-ink md:border-r"
		tabs={[
			{
				value: 'versions',
				word: `Versions ${view.versions.length}${openSides ? ` +${openSides} beside` : ''}`,
				panel: versionsPanel
			},
			{ value: 'access', word: reached ? `Access ${reached}` : 'Access', panel: accessPanel },
			{ value: 'trail', word: 'Trail', panel: trailPanel }
		]}
	/>
	<div class="px-3.5 py-2.5 md:overflow-auto">
		<DocumentActions
			bind:this={actions}
			{view}
			{project}
			{code}
			{controller}
			{outsideLevel}
			{retentionDays}
			{changed}
			{putInRelease}
		/>
		{#if row.preview === 'made'}
			<a class="mt-2 inline-block" href="/{code}/document/{row.id}" tabindex="-1" aria-hidden="true">
				<img
					class="max-h-[92px] max-w-full border border-rule bg-white"
					src={addressOf('preview', { document: row.id, label: row.label })}
					alt=""
					loading="lazy"
				/>
			</a>
		{/if}
	</div>
</section>
