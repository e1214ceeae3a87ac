<script lang="ts">
	import Select from '../kit/Select.svelte';
	import { toast } from '../kit/toast';
	import { cupboard } from '../../client/cupboard';
	import { attempt } from '../platform/api';
	import type { LiveDrawingState } from './drawing.svelte';

	/** The layers of a live drawing: which one sees, which are off in the drawing, and whose each is. */
	let {
		drawing,
		departments,
		document,
		mayManage,
		writes
	}: {
		drawing: LiveDrawingState;
		departments: { id: string; code: string; name: string; leads?: string[] }[];
		document: string;
		mayManage: boolean;
		writes: boolean;
	} = $props();

	async function give(layer: { name: string; key: string }, choice: string) {
		const department = choice || null;
		const done = await attempt(() => cupboard.giveLayer({ document, layer: layer.name, department }));
		if (done)
			toast.success(
				`${layer.name} is ${department ? `for ${departments.find((d) => d.id === department)?.name ?? ''}` : 'everybody’s'} now.`
			);
	}
	const code = (id: string | null) => departments.find((d) => d.id === id)?.code ?? '';
</script>

<p class="mb-2 text-[12px] text-ink-2">
	A layer’s department edits it; others see it and remark. Layers of nobody are everybody’s. Leads hand theirs
	over.
</p>
<ul class="divide-y divide-rule-2 border-y border-rule-2">
	{#each drawing.layers as layer (layer.key)}
		{@const may = drawing.mayEdit(layer.name)}
		<li class="flex items-center gap-2 py-1">
			<input
				type="checkbox"
				class="accent-act"
				aria-label="See {layer.name}"
				checked={layer.seen}
				disabled={layer.off}
				onchange={(e) =>
					e.currentTarget.checked ? drawing.unseen.delete(layer.key) : drawing.unseen.add(layer.key)}
			/>
			<span
				class="min-w-0 flex-1 truncate font-mono text-[12px] {layer.off ? 'text-ink-2' : ''}"
				title={layer.name}>{layer.name}{layer.off ? ' (off)' : ''}</span
			>
			{#if may}<button
					class="button !px-1.5 !py-0 text-[11px]"
					onclick={() => drawing.switchLayer(layer.name, !layer.off)}
					>{layer.off ? 'Switch on' : 'Switch off'}</button
				>{/if}
			{#if writes}<span
					title={mayManage || may ? 'Whose the layer is' : 'The leads of its department hand it over'}
					><Select
						class="!w-[72px] !py-0 font-mono text-[11px]"
						label="Whose {layer.name} is"
						choices={[
							{ value: '', label: 'all' },
							...departments.map((d) => ({ value: d.id, label: d.code }))
						]}
						value={layer.owner ?? ''}
						choose={(department) => void give(layer, department)}
					/></span
				>{:else}<span class="font-mono text-[11px] text-ink-2">{code(layer.owner) || 'all'}</span>{/if}
		</li>
	{/each}
</ul>
