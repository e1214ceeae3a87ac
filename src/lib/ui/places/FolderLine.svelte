<script lang="ts">
	import DoorClosedIcon from '@lucide/svelte/icons/door-closed';
	import FolderIcon from '@lucide/svelte/icons/folder';
	import SnowflakeIcon from '@lucide/svelte/icons/snowflake';
	import type { FolderRow } from './list';
	import { plural } from '../platform/words';

	/** A folder as a line of the folder that it lies in. */
	let {
		folder,
		grid,
		code,
		index,
		start,
		height,
		current,
		selected,
		tick,
		press,
		open
	}: {
		folder: FolderRow;
		/** Classes of the list's columns. */
		grid: string;
		code: string;
		index: number;
		start: number;
		height: number;
		/** The keys stand on it. */
		current: boolean;
		selected: boolean;
		/** Gives whether it is selected now. */
		tick: (range: boolean) => boolean;
		press: (event: MouseEvent) => void;
		open: () => void;
	} = $props();
</script>

<div
	role="row"
	tabindex="-1"
	aria-selected={current}
	aria-rowindex={index + 1}
	class="{grid} absolute inset-x-0 top-0 cursor-default border-b border-rule-2 {current
		? 'bg-act-soft'
		: 'bg-film hover:bg-act-soft'}"
	style:height="{height}px"
	style:transform="translateY({start}px)"
	onclick={press}
	ondblclick={open}
	onkeydown={(e) => e.key === 'Enter' && open()}
>
	<span class="pl-2" role="gridcell"
		><input
			type="checkbox"
			class="align-middle accent-act"
			aria-label="Tick folder {folder.name}"
			checked={selected}
			onclick={(e) => {
				e.stopPropagation();
				e.currentTarget.checked = tick(e.shiftKey);
			}}
		/></span
	>
	<span class="hidden items-center gap-1.5 text-ink-2 sm:flex" role="gridcell"
		><FolderIcon size={14} aria-hidden="true" />Folder</span
	>
	<span class="flex min-w-0 items-center gap-1.5 pr-2 sm:col-start-3 sm:-col-end-1" role="gridcell"
		><FolderIcon size={14} class="shrink-0 text-ink-2 sm:hidden" aria-hidden="true" /><a
			class="truncate font-semibold hover:text-act"
			href="/{code}/place/{folder.id}"
			tabindex="-1">{folder.name}</a
		>{#if folder.closed}<span class="tag bg-rule-2 text-[11px] font-normal"
				><DoorClosedIcon size={11} aria-hidden="true" />inherits no access</span
			>{/if}{#if folder.frozen}<span class="tag bg-wait-soft text-[11px] font-normal text-wait"
				><SnowflakeIcon size={11} aria-hidden="true" />frozen</span
			>{/if}<span class="hidden shrink-0 text-[12px] text-ink-2 sm:inline"
			>{plural(folder.documents, 'document')}</span
		></span
	>
	<span class="text-[12px] whitespace-nowrap text-ink-2 sm:hidden" role="gridcell"
		>{plural(folder.documents, 'document')}</span
	>
</div>
