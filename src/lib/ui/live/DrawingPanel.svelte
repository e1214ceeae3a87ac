<script lang="ts">
	import Select from '../kit/Select.svelte';
	import { attributesOf } from '../../core/drawing/edited';
	import { toast } from '../kit/toast';
	import type { XY } from '../../core/drawing/item';
	import { plural } from '../platform/words';
	import { LiveDrawingState } from './drawing.svelte';

	/** What is chosen in a live drawing and what can be done with it; or what is drawn next, with exact coordinates. */
	let {
		drawing,
		departments,
		writes
	}: {
		drawing: LiveDrawingState;
		departments: { id: string; code: string; name: string }[];
		writes: boolean;
	} = $props();

	let x = $state('');
	let y = $state('');
	/** Coordinates count from the last point. */
	let onward = $state(false);
	const things = $derived(drawing.things);
	const one = $derived(things.length === 1 ? things[0]! : null);
	const words = $derived(one && LiveDrawingState.words(one));
	const mayChange = $derived(drawing.changeable.length > 0);
	const layers = $derived(drawing.layers.filter((l) => drawing.mayEdit(l.name)));
	const owner = $derived.by(() => {
		const id = one ? drawing.owners.get(one.layer.toUpperCase()) : undefined;
		return departments.find((d) => d.id === id) ?? null;
	});
	const KINDS: Record<string, string> = {
		LINE: 'Line',
		LWPOLYLINE: 'Polyline',
		POLYLINE: 'Polyline',
		CIRCLE: 'Circle',
		ARC: 'Arc',
		ELLIPSE: 'Ellipse',
		SPLINE: 'Curve',
		TEXT: 'Text',
		MTEXT: 'Text',
		INSERT: 'Block',
		DIMENSION: 'Dimension',
		HATCH: 'Hatch',
		SOLID: 'Filled shape',
		LEADER: 'Leader'
	};
	function typed(): XY | null {
		const read = (text: string) => Number(text.trim().replace(',', '.'));
		const [px, py] = [read(x), read(y)];
		if (x.trim() === '' || y.trim() === '' || !Number.isFinite(px) || !Number.isFinite(py)) {
			toast('Write both figures, such as 1250 and −300.5.');
			return null;
		}
		return [px, py];
	}
	function setPoint(event: SubmitEvent) {
		event.preventDefault();
		const point = typed();
		const last = drawing.points.at(-1);
		if (!point) return;
		drawing.set(onward && last ? [last[0] + point[0], last[1] + point[1]] : point);
		[x, y] = ['', ''];
	}
	function shift(copy: boolean) {
		const by = typed();
		if (!by) return;
		if (copy) drawing.copyBy(by);
		else drawing.moveBy(by);
	}
	/** A point of what was added, typed anew. */
	function movePoint(at: number, axis: 0 | 1, text: string) {
		const value = Number(text.replace(',', '.'));
		if (!one?.item || !Number.isFinite(value) || text.trim() === '') return;
		const points = one.item.points.map((p): [number, number] => [...p]);
		points[at]![axis] = value;
		drawing.setItem(one, { points });
	}
	const figure = (n: number) => String(Number(n.toFixed(3)));
</script>

{#snippet coordinates()}
	<div class="flex gap-2">
		<label class="block flex-1"
			><span class="label">X</span><input class="field font-mono" inputmode="decimal" bind:value={x} /></label
		><label class="block flex-1"
			><span class="label">Y</span><input class="field font-mono" inputmode="decimal" bind:value={y} /></label
		>
	</div>
{/snippet}

{#snippet figureField(words: string, of: 'height' | 'scale' | 'turn')}
	<label class="block flex-1"
		><span class="label">{words}</span><input
			class="field font-mono"
			type="number"
			min={of === 'turn' ? undefined : '0'}
			step="any"
			bind:value={drawing[of]}
		/></label
	>
{/snippet}

{#if things.length}
	<div class="space-y-3">
		<p class="font-semibold">
			{one
				? `${KINDS[one.entity.type] ?? one.entity.type}${one.item ? ', added' : drawing.changed(one) ? ', changed' : ''}`
				: `${plural(things.length, 'thing')} chosen`}
		</p>
		{#if one}<p class="text-ink-2">
				Layer <span class="font-mono text-ink">{one.layer}</span>{owner
					? `, of ${owner.name}`
					: ', everybody’s'}.
				{#if writes && !mayChange}Its people edit it; you can remark on it.{/if}
			</p>{/if}
		{#if writes && mayChange}
			<label class="block"
				><span class="label">Layer</span><Select
					class="font-mono"
					choices={layers.map((l) => ({ value: l.key, label: l.name }))}
					value={one?.layer.toUpperCase() ?? ''}
					choose={(key) => drawing.setLayer(layers.find((l) => l.key === key)?.name ?? key)}
					placeholder="several"
				/></label
			>
			{#if one && words !== null}<label class="block"
					><span class="label">Words</span><textarea
						class="field"
						rows={one.entity.type === 'MTEXT' ? 4 : 2}
						value={words}
						maxlength="2000"
						onchange={(e) => drawing.setWords(one, e.currentTarget.value)}></textarea></label
				>{#if one.entity.type === 'DIMENSION'}<p class="text-[12px] text-ink-2">
						Without words it says what it measures.
					</p>{:else if one.entity.type === 'MTEXT'}<p class="text-[12px] text-ink-2">
						New words are written plainly: bold, colours and heights within the text are lost.
					</p>{/if}{/if}
			{#if one}{#each attributesOf(one.entity) as attribute, i (i)}<label class="block"
						><span class="label font-mono">{attribute.tag}</span><input
							class="field"
							value={attribute.value}
							maxlength="2000"
							onchange={(e) => drawing.setAttribute(one, i, e.currentTarget.value)}
						/></label
					>{/each}{/if}
			{#if one?.item && one.item.kind !== 'copy'}
				<fieldset class="space-y-1">
					<legend class="label">Points</legend>
					{#each one.item.points.slice(0, 12) as point, i (i)}<div class="flex gap-2">
							{#each [0, 1] as const as axis (axis)}<input
									class="field font-mono"
									aria-label="{axis ? 'Y' : 'X'} of point {i + 1}"
									value={figure(point[axis])}
									onchange={(e) => movePoint(i, axis, e.currentTarget.value)}
								/>{/each}
						</div>{/each}
				</fieldset>
				{#if one.item.radius !== undefined}<label class="block w-1/2"
						><span class="label">Radius</span><input
							class="field font-mono"
							value={figure(one.item.radius)}
							onchange={(e) =>
								Number(e.currentTarget.value) > 0 &&
								drawing.setItem(one, { radius: Number(e.currentTarget.value) })}
						/></label
					>{/if}
			{/if}
			{#if drawing.movables.length}
				<fieldset class="space-y-2 border-t border-rule pt-2">
					<legend class="label">Move or copy by</legend>
					{@render coordinates()}
					<div class="flex gap-2">
						<button class="button" onclick={() => shift(false)}>Move</button>
						<button class="button" onclick={() => shift(true)}>Copy</button>
					</div>
				</fieldset>
			{/if}
			<div class="flex flex-wrap gap-2 border-t border-rule pt-2">
				<button class="button" onclick={() => drawing.remove()}
					>Delete {drawing.changeable.length > 1 ? drawing.changeable.length : ''}</button
				>
				{#if one && drawing.changed(one)}<button class="button" onclick={() => drawing.asInFile(one)}
						>As in the file</button
					>{/if}
			</div>
		{/if}
	</div>
{:else if drawing.tool === 'choose'}
	<p class="text-ink-2">
		{writes
			? 'Click something in the drawing to see and change it, or take a tool above.'
			: 'Click something in the drawing to see what it is.'}
	</p>
	{#if drawing.edits.changes.size + drawing.edits.items.length}<p class="mt-2 text-ink-2">
			{plural(drawing.edits.changes.size, 'entity', 'entities')} of the file changed, {plural(
				drawing.edits.items.length,
				'thing'
			)} added since {drawing.base ? 'it was begun' : ''}.
		</p>{/if}
{:else}
	<div class="space-y-3">
		<label class="block"
			><span class="label">On layer</span><Select
				choices={layers.map((l) => ({ value: l.name, label: l.name }))}
				bind:value={drawing.layer}
				class="font-mono"
			/></label
		>
		{#if !layers.length}<p class="text-fault">
				No layer is yours; its department’s lead can hand one over.
			</p>{/if}
		{#if drawing.tool === 'text'}<label class="block"
				><span class="label">The words</span><textarea class="field" rows="2" bind:value={drawing.words}
				></textarea></label
			>
			<div class="flex gap-2">
				{@render figureField('Height', 'height')}{@render figureField('Turned, degrees', 'turn')}
			</div>{/if}
		{#if drawing.tool === 'block'}<label class="block"
				><span class="label">Block</span><Select
					choices={drawing.blocks.map((name) => ({ value: name, label: name }))}
					bind:value={drawing.block}
					class="font-mono"
				/></label
			>
			{#if !drawing.blocks.length}<p class="text-ink-2">This drawing has no blocks to insert.</p>{/if}
			<div class="flex gap-2">
				{@render figureField('Times as large', 'scale')}{@render figureField('Turned, degrees', 'turn')}
			</div>{/if}
		<form class="space-y-2 border-t border-rule pt-2" onsubmit={setPoint}>
			<p class="label">Point {drawing.points.length + 1}, exactly</p>
			{@render coordinates()}
			{#if drawing.points.length}<label class="flex items-center gap-1.5"
					><input type="checkbox" class="accent-act" bind:checked={onward} />from the last point</label
				>{/if}
			<button class="button button-act">Set point</button>
		</form>
	</div>
{/if}
