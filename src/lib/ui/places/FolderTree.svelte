<script lang="ts">
	import DoorClosedIcon from '@lucide/svelte/icons/door-closed';
	import SnowflakeIcon from '@lucide/svelte/icons/snowflake';
	import { ROWS_DRAGGED } from '../adding/files';

	/** The folders beside the list: all shelves, and the current one opened down to the current folder. */
	interface Branch {
		id: string;
		parentId: string | null;
		name: string;
		kind: string;
		position: number;
		documents: number;
		closed: boolean;
		frozen: boolean;
	}
	let {
		tree,
		current,
		code,
		dropped
	}: {
		tree: Branch[];
		current: string;
		code: string;
		/** Documents dragged from the list onto a folder. */
		dropped: (documents: string[], to: { id: string; name: string }) => void;
	} = $props();
	let over = $state<string | null>(null);

	function drop(event: DragEvent, to: Branch) {
		const data = event.dataTransfer?.getData(ROWS_DRAGGED);
		over = null;
		if (!data || to.id === current) return;
		event.preventDefault();
		event.stopPropagation();
		dropped(JSON.parse(data) as string[], { id: to.id, name: to.name });
	}

	const byId = $derived(new Map(tree.map((f) => [f.id, f])));
	const opened = $derived.by(() => {
		const ids = new Set<string>();
		for (let at = byId.get(current); at; at = at.parentId ? byId.get(at.parentId) : undefined) ids.add(at.id);
		return ids;
	});
	const shown = $derived.by(() => {
		const list: (Branch & { depth: number })[] = [];
		const walk = (parent: string | null, depth: number) => {
			// A folder given for itself stands at the top, since what lies around it is not to be seen.
			const children = tree.filter((f) =>
				parent === null ? f.parentId === null || !byId.has(f.parentId) : f.parentId === parent
			);
			if (parent === null) children.sort((a, b) => a.position - b.position || a.name.localeCompare(b.name));
			for (const f of children) {
				list.push({ ...f, depth });
				if (opened.has(f.id)) walk(f.id, depth + 1);
			}
		};
		walk(null, 0);
		return list;
	});
</script>

<nav class="hidden w-[196px] shrink-0 overflow-auto border-r border-rule py-1 md:block" aria-label="Folders">
	<ul>
		{#each shown as f (f.id)}
			<li>
				<a
					href="/{code}/place/{f.id}"
					aria-current={f.id === current ? 'page' : undefined}
					ondragover={(e) => {
						if (!e.dataTransfer?.types.includes(ROWS_DRAGGED) || f.id === current) return;
						e.preventDefault();
						over = f.id;
					}}
					ondragleave={() => (over = null)}
					ondrop={(e) => drop(e, f)}
					style:padding-left="{18 + f.depth * 11}px"
					class="flex h-[25px] items-center justify-between border-l-[3px] pr-3 hover:bg-sheet {f.id ===
					current
						? 'border-plank bg-sheet font-semibold'
						: 'border-transparent'} {opened.has(f.id) ? 'font-semibold' : ''} {over === f.id
						? 'bg-act-soft'
						: ''}"
				>
					<span class="truncate">{f.name}</span>{#if f.frozen}<SnowflakeIcon
							size={11}
							class="ml-1 shrink-0 text-wait"
							aria-label="frozen"
						/>{/if}{#if f.closed}<DoorClosedIcon
							size={11}
							class="ml-1 shrink-0 text-ink-2"
							aria-label="closed"
						/>{/if}<span class="ml-auto pl-2 font-mono text-[11px] font-normal text-ink-2"
						>{f.documents.toLocaleString('en')}</span
					>
				</a>
			</li>
		{/each}
	</ul>
</nav>
