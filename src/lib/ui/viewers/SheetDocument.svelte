<script lang="ts">
	import { addressOf } from '../../client/cupboard';
	import { isSheetKind } from '../../core/files/kinds';
	import type { Present, RoomMode } from '../../core/live/live';
	import type { VersionRow } from '../../core/documents/rows';
	import { shownOf, side, type SideTab } from '../documents/side-tab.svelte';
	import Tabs from '../kit/Tabs.svelte';
	import type { LiveLine } from '../live/line.svelte';
	import RefusedBar from '../live/RefusedBar.svelte';
	import type { Markup } from '../markup/markup.svelte';
	import MarkupLayer from '../markup/MarkupLayer.svelte';
	import MarkupSide from '../markup/MarkupSide.svelte';
	import ScaleDialog from '../markup/ScaleDialog.svelte';
	import type { Remarks } from '../remarks/remarks.svelte';
	import RemarksPanel from '../remarks/RemarksPanel.svelte';
	import type { Face } from './sheet-face';
	import SheetRemarks from '../remarks/SheetRemarks.svelte';
	import Viewer from './Viewer.svelte';

	/** A version on screen, with the remarks beside it and on it, and the marks of everybody over it. */
	let {
		document,
		name,
		version,
		versions,
		newest,
		remarks,
		marks,
		mayDownload,
		codes,
		stamps,
		code,
		marking,
		beside = $bindable(),
		more,
		refreshed
	}: {
		document: string;
		/** Number and title. */
		name: string;
		version: VersionRow;
		/** All versions, newest first, and which of them somebody has marked up. */
		versions: { all: VersionRow[]; marked: string[] };
		newest: boolean;
		remarks: Remarks;
		/** Who marks up here, on which layer, and how far they may; null for who looks as somebody else. */
		marks: { me: Present; layer: string; mode: RoomMode } | null;
		mayDownload: boolean;
		/** Codes of the project's departments, in their order. */
		codes: string[];
		stamps: string[];
		code: string;
		/** The pointer is for marks. */
		marking: boolean;
		/** On a phone what stands beside is shown over the sheet. */
		beside: boolean;
		/** What else stands beside it. */
		more: SideTab[];
		refreshed: () => void;
	} = $props();

	const at = $derived({ document, label: version.label });
	/** Places can be chosen on what is shown as a sheet. */
	const isSheet = $derived(isSheetKind(version.mediaType));
	const marked = $derived(versions.marked.includes(version.label));
	/** The newest earlier version that was marked up. */
	const earlier = $derived.by(() => {
		const at = versions.all.findIndex((v) => v.label === version.label);
		return versions.all.slice(at + 1).find((v) => versions.marked.includes(v.label)) ?? null;
	});
	let markup = $state.raw<Markup | null>(null);
	let line = $state.raw<LiveLine | null>(null);
	let layer = $state<ReturnType<typeof MarkupLayer>>();
	let scaling = $state.raw<{ page: number; length: number } | null>(null);

	/**
	 * The line to the marks is opened when there are some, or somebody begins. As one string, so that it is opened anew
	 * only when one of these changes, and not whenever the page's data is fetched again.
	 */
	const opening = $derived(
		marks && isSheet && (marked || marking)
			? JSON.stringify({ room: `marks/${document}/${version.label}`, ...marks })
			: null
	);
	$effect(() => {
		if (!opening) return;
		const { room, me, layer, mode } = JSON.parse(opening) as { room: string } & NonNullable<typeof marks>;
		let open: Markup | null = null;
		let closed = false;
		void Promise.all([import('../markup/markup.svelte'), import('../live/line.svelte')]).then(
			([{ Markup }, { LiveLine }]) => {
				if (closed) return;
				line = new LiveLine(room, me);
				markup = open = new Markup(line, me, layer, mode);
			}
		);
		return () => {
			closed = true;
			markup = line = null;
			open?.close();
		};
	});
	const tabs = $derived([
		{ value: 'remarks', word: `Remarks ${remarks.open.length}`, panel: remarksPanel, class: 'bg-film' },
		...more
	]);
	function pickPlace() {
		remarks.picking = !remarks.picking;
		beside = false;
	}
</script>

{#snippet over(face: Face)}
	{#if markup}<MarkupLayer
			bind:this={layer}
			{face}
			{markup}
			{codes}
			editing={marking}
			saysScale={(page, length) => (scaling = { page, length })}
		/>{/if}
	<SheetRemarks {face} {remarks} label={version.label} />
{/snippet}
{#snippet remarksPanel()}<RemarksPanel
		{remarks}
		titled={false}
		table="/{code}/document/{document}/remarks"
		label={version.label}
		{newest}
		compose={isSheet ? { label: 'On a place', run: pickPlace } : null}
	/>{/snippet}
<div class="flex h-full flex-col">
	<RefusedBar {line} />
	<div class="relative flex min-h-0 flex-1 max-md:flex-col">
		{#if marking && markup}<div
				class="shrink-0 max-md:order-last max-md:max-h-[45%] max-md:overflow-auto md:w-[190px]"
			>
				<MarkupSide
					{markup}
					{line}
					{codes}
					{stamps}
					grow={(factor) => layer?.growBy(factor)}
					{document}
					{version}
					from={earlier}
					{mayDownload}
					{name}
					{refreshed}
				/>
			</div>{/if}
		<div class="min-h-0 min-w-0 flex-1">
			<Viewer
				file={mayDownload ? addressOf('versionFile', at) : null}
				made={addressOf('versionShown', at)}
				download={mayDownload ? addressOf('versionFile', { ...at, download: '' }) : null}
				title={name}
				mediaType={version.mediaType}
				fileName={version.fileName}
				size={version.size}
				layer={over}
			/>
		</div>
		<Tabs
			bind:value={() => shownOf(tabs), (tab) => (side.tab = tab)}
			class="{beside
				? 'absolute inset-0 z-10 flex'
				: 'hidden'} shrink-0 border-l border-rule bg-sheet lg:static lg:flex lg:w-[320px]"
			{tabs}
		/>
	</div>
</div>
{#if scaling !== null}<ScaleDialog
		bind:open={() => scaling !== null, (open) => !open && (scaling = null)}
		set={(real, unit) => markup?.setScale(scaling!.page, scaling!.length, real, unit)}
	/>{/if}
