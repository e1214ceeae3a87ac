<script lang="ts">
	import { neighbourhood, type Placed } from '../../core/references/neighbourhood';
	import type { Reference } from '../../core/references/references';
	import type { AnswerOf } from '../../client/cupboard';
	import { plural } from '../platform/words';

	/**
	 * The neighbourhood of a document as a picture: who names it at the left, what it names at the right, two steps far.
	 * A press on a neighbour goes to its own; what is drawn stands as a list beside it, too.
	 */
	let { around, code }: { around: AnswerOf<'neighbourhood'>; code: string } = $props();

	const of = $derived(new Map(around.documents.map((one) => [one.number, one])));
	const { placed, left } = $derived(neighbourhood(around.number, around.names, (number) => number));

	/** Measures of the picture, in its own units: a box, and the room between boxes and columns. */
	const [WIDE, HIGH, APART, BETWEEN, HEAD] = [206, 40, 12, 62, 26];
	/** Of the letters of a title, so many fit in a box. */
	const LETTERS = 33;
	const WORDS: Record<Placed['column'], string> = {
		'-2': 'names those',
		'-1': 'names it',
		0: 'this document',
		1: 'it names',
		2: 'these name'
	};
	const columns = $derived(([-2, -1, 0, 1, 2] as const).filter((at) => placed.some((p) => p.column === at)));
	const rowsIn = (at: Placed['column']) =>
		placed.filter((p) => p.column === at).length + (left[at] ? 0.6 : 0);
	const most = $derived(Math.max(...columns.map(rowsIn)));
	const high = $derived(HEAD + most * (HIGH + APART));
	const wide = $derived(columns.length * WIDE + (columns.length - 1) * BETWEEN);
	const x = (at: Placed['column']) => columns.indexOf(at) * (WIDE + BETWEEN);
	/** A column stands in the middle of the height. */
	const y = ({ column, row }: Placed) =>
		HEAD + ((most - rowsIn(column)) * (HIGH + APART)) / 2 + row * (HIGH + APART);

	const where = $derived(new Map(placed.map((one) => [one.id, one])));
	const STROKE: Record<Reference, string> = {
		current: 'stroke-done',
		older: 'stroke-fault',
		newer: 'stroke-lock',
		'not-issued': 'stroke-lock',
		planned: 'stroke-wait',
		unknown: 'stroke-fault'
	};
	/** From the right edge of who names to the left edge of what is named; back within a column it goes round at the right. */
	function line(from: Placed, to: Placed): string {
		const [x1, y1, y2] = [x(from.column) + WIDE, y(from) + HIGH / 2, y(to) + HIGH / 2];
		const x2 = to.column > from.column ? x(to.column) : x(to.column) + WIDE;
		const bend = to.column > from.column ? (x2 - x1) / 2 : BETWEEN / 2;
		const enter = to.column > from.column ? x2 - bend : x2 + bend;
		return `M${x1} ${y1} C${x1 + bend} ${y1} ${enter} ${y2} ${x2} ${y2}`;
	}
	const short = (text: string) => (text.length > LETTERS ? `${text.slice(0, LETTERS - 1)}…` : text);
</script>

<svg
	viewBox="-8 0 {wide + 16} {high + 4}"
	class="mx-auto block h-auto w-full"
	style:max-width="{wide + 16}px"
	role="group"
	aria-label="Neighbourhood of {around.number}"
>
	{#each columns as at (at)}<text
			x={x(at) + WIDE / 2}
			y="16"
			text-anchor="middle"
			class="fill-ink-2 text-[12px]">{WORDS[at]}</text
		>{/each}
	{#each around.names as one (`${one.from} ${one.to}`)}{@const [from, to] = [
			where.get(one.from),
			where.get(one.to)
		]}{#if from && to}<path
				d={line(from, to)}
				fill="none"
				stroke-width="1.5"
				stroke-dasharray={one.how === 'current' ? undefined : '5 3'}
				class={STROKE[one.how]}
				aria-hidden="true"
			/>{/if}{/each}
	{#each placed as one (one.id)}{@const about = of.get(one.id)!}
		<a
			href="/{code}/document/{about.id}{one.column ? '/references' : ''}"
			aria-label="{about.number} {about.title}, {about.issued ?? 'not issued'}"
		>
			<title>{about.title}</title>
			<rect
				x={x(one.column)}
				y={y(one)}
				width={WIDE}
				height={HIGH}
				rx="2"
				class={one.column ? 'fill-sheet stroke-rule hover:fill-act-soft' : 'fill-act-soft stroke-act'}
				stroke-width={one.column ? 1 : 2}
			/>
			<text x={x(one.column) + 8} y={y(one) + 16} class="fill-ink font-mono text-[11.5px] font-semibold"
				>{about.number}</text
			>
			<text
				x={x(one.column) + WIDE - 8}
				y={y(one) + 16}
				text-anchor="end"
				class="font-mono text-[11.5px] {about.issued ? 'fill-ink' : 'fill-lock'}">{about.issued ?? '–'}</text
			>
			<text x={x(one.column) + 8} y={y(one) + 32} class="fill-ink-2 text-[12px]">{short(about.title)}</text>
		</a>{/each}
	{#each columns as at (at)}{#if left[at]}<text
				x={x(at) + WIDE / 2}
				y={y({ id: '', column: at, row: rowsIn(at) - 0.6 }) + 16}
				text-anchor="middle"
				class="fill-ink-2 text-[12px]">and {plural(left[at], 'more', 'more')}, in the list below</text
			>{/if}{/each}
</svg>
<p class="border-t border-rule-2 px-3 py-1.5 text-[12px] text-ink-2">
	Lines go from who names to what is named: full where it is issued as it is named, broken where it is not.
</p>
