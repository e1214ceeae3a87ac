/** A sheet of a schedule as rows of shown values; the first is row 1, and rows that hold nothing are there, empty. */
export interface Table {
	name: string;
	rows: string[][];
}

/** Rows without those at the end that hold nothing, and without the repetitions that spreadsheets end in. */
export function withoutTrailing(rows: string[][]): string[][] {
	const last = rows.findLastIndex((row) => row.some((cell) => cell !== ''));
	return rows.slice(0, last + 1);
}

type CellChange = { before: string; after: string };

interface ComparedRow {
	kind: 'same' | 'added' | 'removed' | 'changed';
	/** Value in the key column, or the number of the row. */
	key: string;
	/** One value a column; where it was changed, both. */
	cells: (string | CellChange)[];
}

export interface ComparedTable {
	name: string;
	kind: 'same' | 'added' | 'removed' | 'changed';
	columns: { name: string; kind: 'same' | 'added' | 'removed' }[];
	/** Which column told the rows apart; null when they were compared in order. */
	key: string | null;
	rows: ComparedRow[];
	changes: number;
}

const clean = (cell: string | undefined) => (cell ?? '').trim();

/** A heading is looked for in this many rows from the top. */
const HEAD = 15;

const filled = (row: string[]) => row.filter((c) => clean(c)).length;
const isFigure = (cell: string) => /^-?[\d\s.,]+%?$/.test(cell);

/** Where the heading stands: the first row that is about as wide as the rows usually are, in words. */
function headingAt(rows: string[][]): number {
	const widths = rows
		.slice(0, 200)
		.map(filled)
		.sort((a, b) => a - b);
	const usual = Math.max(2, 0.7 * (widths[Math.floor(widths.length / 2)] ?? 0));
	return rows
		.slice(0, HEAD)
		.findIndex(
			(row) => filled(row) >= usual && row.filter((c) => isFigure(clean(c))).length < filled(row) / 2
		);
}

/** Splits a table into its heading and the rows beneath; columns without a heading get their letter. */
export function headed(table: Table): { columns: string[]; rows: string[][] } {
	// Where no row looks like a heading, the first one is.
	const at = Math.max(0, headingAt(table.rows));
	const width = table.rows.slice(at, at + 1_000).reduce((most, r) => Math.max(most, r.length), 0);
	const taken = new Set<string>();
	const columns = Array.from({ length: width }, (_, i) => {
		const name = clean(table.rows[at]![i]) || columnLetter(i);
		let own = name;
		for (let n = 2; taken.has(own); n++) own = `${name} ${n}`;
		taken.add(own);
		return own;
	});
	return { columns, rows: table.rows.slice(at + 1).filter((r) => r.some((c) => clean(c))) };
}

/** Letters of a column, A for 0, AA for 26. */
export function columnLetter(index: number): string {
	const last = String.fromCharCode(65 + (index % 26));
	return index < 26 ? last : columnLetter(Math.floor(index / 26) - 1) + last;
}

/** Columns that could tell rows apart: filled and different in every row of both tables, best first. */
export function keyColumns(before: Table, after: Table): string[] {
	const [a, b] = [headed(before), headed(after)];
	const unique = (t: { columns: string[]; rows: string[][] }, name: string) => {
		const values = t.rows.map((r) => clean(r[t.columns.indexOf(name)]));
		return values.every(Boolean) && new Set(values).size === values.length ? new Set(values) : null;
	};
	return a.columns
		.flatMap((name) => {
			if (!b.columns.includes(name)) return [];
			const [one, two] = [unique(a, name), unique(b, name)];
			return one && two ? [{ name, common: [...one].filter((v) => two.has(v)).length }] : [];
		})
		.sort((p, q) => q.common - p.common)
		.map((c) => c.name);
}

/**
 * Compares two schedules sheet by sheet. Columns are matched by their headings and rows by a key column; where no
 * column tells rows apart, rows are compared in order.
 * @param key heading of the key column; chosen when left out
 */
export function compareTables(before: Table[], after: Table[], key?: string): ComparedTable[] {
	const names = [...new Set([...before.map((t) => t.name), ...after.map((t) => t.name)])];
	// A single sheet that was renamed is still the same sheet.
	if (before.length === 1 && after.length === 1)
		return [compareOne(before[0]!, after[0]!, after[0]!.name, key)];
	return names.map((name) =>
		compareOne(
			before.find((t) => t.name === name),
			after.find((t) => t.name === name),
			name,
			key
		)
	);
}

function compareOne(
	before: Table | undefined,
	after: Table | undefined,
	name: string,
	wanted?: string
): ComparedTable {
	const blank = { name, rows: [] };
	const [a, b] = [headed(before ?? blank), headed(after ?? blank)];
	const columns: ComparedTable['columns'] = [
		...b.columns.map((c) => ({
			name: c,
			kind: !before || a.columns.includes(c) ? ('same' as const) : ('added' as const)
		})),
		...a.columns.filter((c) => !b.columns.includes(c)).map((c) => ({ name: c, kind: 'removed' as const }))
	];
	const keys = before && after ? keyColumns(before, after) : [];
	const key = wanted && keys.includes(wanted) ? wanted : (keys[0] ?? null);
	const valueIn = (t: typeof a, row: string[], column: string) => clean(row[t.columns.indexOf(column)]);
	const keyOf = (t: typeof a, row: string[], at: number) => (key ? valueIn(t, row, key) : `row ${at + 1}`);
	const old = new Map(a.rows.map((row, at) => [keyOf(a, row, at), row]));
	const rows: ComparedRow[] = [];
	let waiting = a.rows.map((row, at) => ({ row, key: keyOf(a, row, at) }));
	const kept = new Set(b.rows.map((row, at) => keyOf(b, row, at)));
	const removedUpTo = (stop: string | null) => {
		// What was removed stands where it stood: before the next row that was kept.
		const end = stop === null ? waiting.length : waiting.findIndex((w) => w.key === stop);
		if (end < 0) return;
		for (const w of waiting.slice(0, end))
			if (!kept.has(w.key))
				rows.push({ kind: 'removed', key: w.key, cells: columns.map((c) => valueIn(a, w.row, c.name)) });
		waiting = stop === null ? [] : waiting.slice(end + 1);
	};
	b.rows.forEach((row, at) => {
		const rowKey = keyOf(b, row, at);
		const was = old.get(rowKey);
		if (was) removedUpTo(rowKey);
		let changed = false;
		const cells = columns.map((c) => {
			const now = valueIn(b, row, c.name);
			const then = was ? valueIn(a, was, c.name) : now;
			if (!was || then === now || c.kind === 'added') return now;
			if (c.kind === 'removed') return then;
			changed = true;
			return { before: then, after: now };
		});
		rows.push({ kind: was ? (changed ? 'changed' : 'same') : 'added', key: rowKey, cells });
	});
	removedUpTo(null);
	const changes =
		rows.filter((r) => r.kind !== 'same').length + columns.filter((c) => c.kind !== 'same').length;
	return {
		name,
		kind: !before ? 'added' : !after ? 'removed' : changes ? 'changed' : 'same',
		columns,
		key,
		rows,
		changes
	};
}
