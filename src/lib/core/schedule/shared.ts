import { generateNKeysBetween } from 'fractional-indexing';
import * as Y from 'yjs';
import { rewriteMaps, type Kept } from '../live/shared-maps';
import {
	columnSchema,
	inOrder,
	MOST_LETTERS,
	type CellValue,
	type Column,
	type ColumnFields,
	type Row,
	type Schedule
} from './column';

/*
 * A shared schedule is two maps. `columns` holds a map a column with one key a setting, so that a new name and a new
 * width given at the same time both stay. `rows` holds a map a row: `#` is its place among the rows, every other key is
 * the id of a column. So two cells of a row never disturb each other, and a cell that two people write in holds the
 * same for everybody in the end.
 */

/** The key of a row under which its place among the rows stands; ids of columns are letters and figures. */
const ORDER = '#';
const ID = /^[a-z0-9]{4,20}$/;
/** Longest place; longer ones come from nobody's hand. */
const MOST_ORDER = 200;

export const columnsOf = (doc: Y.Doc): Y.Map<Kept> => doc.getMap('columns');
export const rowsOf = (doc: Y.Doc): Y.Map<Kept> => doc.getMap('rows');

/** A column as it is kept, or null for what is none. */
function readColumn(id: string, kept: unknown): Column | null {
	if (!ID.test(id) || !(kept instanceof Y.Map)) return null;
	const { order, ...said } = kept.toJSON() as Record<string, unknown>;
	if (typeof order !== 'string' || order.length > MOST_ORDER) return null;
	const read = columnSchema.safeParse(said);
	return read.success ? { ...read.data, id, order } : null;
}

/** A row as it is kept, or null for what is none; cells that hold something else are passed over. */
function readRow(id: string, kept: unknown): Row | null {
	if (!ID.test(id) || !(kept instanceof Y.Map)) return null;
	const order: unknown = kept.get(ORDER);
	if (typeof order !== 'string' || order.length > MOST_ORDER) return null;
	const cells: Record<string, CellValue> = {};
	for (const [key, value] of kept) {
		if (key === ORDER || !ID.test(key)) continue;
		if (
			typeof value === 'number'
				? Number.isFinite(value)
				: typeof value === 'string' && value.length <= MOST_LETTERS
		)
			cells[key] = value as CellValue;
	}
	return { id, order, cells };
}

export function readSchedule(doc: Y.Doc): Schedule {
	return {
		columns: inOrder([...columnsOf(doc)].flatMap(([id, kept]) => readColumn(id, kept) ?? [])),
		rows: inOrder([...rowsOf(doc)].flatMap(([id, kept]) => readRow(id, kept) ?? []))
	};
}

/**
 * Places for new rows or columns between two others.
 * @param list what is there, in order
 * @param at index before which the new ones go
 */
function places(list: readonly { order: string }[], at: number, count: number): string[] {
	const before = list[at - 1]?.order ?? null;
	// Two that were put in at one time may have the same place: the new ones go behind all of them.
	const after = list.slice(at).find((one) => before === null || one.order > before)?.order ?? null;
	return generateNKeysBetween(before, after, count);
}

/**
 * Puts rows in.
 * @param at index before which they go, among `rows`
 * @param cells of each new row, by column
 * @returns the ids of the new rows
 */
export function addRows(
	doc: Y.Doc,
	rows: readonly Row[],
	at: number,
	cells: readonly Readonly<Record<string, CellValue | null>>[],
	newId: () => string
): string[] {
	const orders = places(rows, at, cells.length);
	return cells.map((held, i) => {
		const id = newId();
		const entries = Object.entries(held).filter(([, value]) => value !== null);
		rowsOf(doc).set(id, new Y.Map<unknown>([[ORDER, orders[i]!], ...entries]));
		return id;
	});
}

/** Sets cells; null empties one. Rows that are gone are passed over. */
export function setCells(
	doc: Y.Doc,
	cells: readonly { row: string; column: string; value: CellValue | null }[]
): void {
	const rows = rowsOf(doc);
	for (const { row, column, value } of cells) {
		const kept = rows.get(row);
		if (!kept || kept.get(column) === (value ?? undefined)) continue;
		if (value === null) kept.delete(column);
		else kept.set(column, value);
	}
}

export function removeRows(doc: Y.Doc, ids: Iterable<string>): void {
	for (const id of ids) rowsOf(doc).delete(id);
}

/** Moves rows, in their order, before the row at an index. */
export function moveRows(doc: Y.Doc, rows: readonly Row[], ids: ReadonlySet<string>, at: number): void {
	const target = rows.slice(at).find((r) => !ids.has(r.id));
	const staying = rows.filter((r) => !ids.has(r.id));
	const moving = rows.filter((r) => ids.has(r.id));
	const orders = places(staying, target ? staying.indexOf(target) : staying.length, moving.length);
	moving.forEach((row, i) => rowsOf(doc).get(row.id)?.set(ORDER, orders[i]));
}

/** Puts a column in before the one at an index. */
export function addColumn(
	doc: Y.Doc,
	columns: readonly Column[],
	at: number,
	fields: ColumnFields,
	id: string
): void {
	const [order] = places(columns, at, 1);
	columnsOf(doc).set(id, new Y.Map(Object.entries({ ...fields, order })));
}

/** Changes settings of a column, only those that differ. What its cells hold is read anew by whoever asks for it. */
export function changeColumn(doc: Y.Doc, id: string, fields: Partial<ColumnFields>): void {
	const kept = columnsOf(doc).get(id);
	if (!kept) return;
	for (const [key, value] of Object.entries(fields))
		if (JSON.stringify(kept.get(key)) !== JSON.stringify(value)) kept.set(key, value);
}

/** Moves a column before the one at an index. */
export function moveColumn(doc: Y.Doc, columns: readonly Column[], id: string, at: number): void {
	const staying = columns.filter((c) => c.id !== id);
	const target = columns.slice(at).find((c) => c.id !== id);
	const [order] = places(staying, target ? staying.indexOf(target) : staying.length, 1);
	columnsOf(doc).get(id)?.set('order', order);
}

/** Takes a column out; what its cells held stays with the rows, so that taking this back brings it back whole. */
export function removeColumn(doc: Y.Doc, id: string): void {
	columnsOf(doc).delete(id);
}

/** A schedule as it comes in: columns, and rows as values in the order of the columns. */
export interface GivenSchedule {
	columns: ColumnFields[];
	rows: (CellValue | null)[][];
}

/** Writes a schedule into an empty shared document. */
export function seedSchedule(doc: Y.Doc, given: GivenSchedule, newId: () => string): void {
	doc.transact(() => {
		const ids = given.columns.map(() => newId());
		const orders = generateNKeysBetween(null, null, ids.length);
		given.columns.forEach((fields, i) =>
			columnsOf(doc).set(ids[i]!, new Y.Map(Object.entries({ ...fields, order: orders[i] })))
		);
		addRows(
			doc,
			[],
			0,
			given.rows.map((row) => Object.fromEntries(ids.map((id, i) => [id, row[i] ?? null]))),
			newId
		);
	});
}

/** Brings a shared schedule back to what it was at an earlier time. */
export function rewriteSchedule(doc: Y.Doc, then: Y.Doc): void {
	doc.transact(() => {
		rewriteMaps(columnsOf(doc), columnsOf(then));
		rewriteMaps(rowsOf(doc), rowsOf(then));
	});
}

/** Reads a shared schedule again and again, only what changed in between. */
export class ScheduleReader {
	private readonly columns = new Map<string, Column>();
	private readonly rows = new Map<string, Row>();
	private read: Schedule | null = null;
	private readonly observe: (events: Y.YEvent<never>[]) => void;

	/** @param changed hears that something is different */
	constructor(
		private readonly doc: Y.Doc,
		changed: () => void
	) {
		for (const [id, kept] of columnsOf(doc)) this.take(this.columns, id, readColumn(id, kept));
		for (const [id, kept] of rowsOf(doc)) this.take(this.rows, id, readRow(id, kept));
		this.observe = (events) => {
			for (const event of events) {
				const target = event.target as Y.AbstractType<unknown>;
				const ids =
					target.parent === null
						? [...(event as unknown as Y.YMapEvent<Kept>).keysChanged]
						: [target._item?.parentSub ?? ''];
				const top = target.parent ?? target;
				for (const id of ids)
					if (top === (columnsOf(doc) as unknown))
						this.take(this.columns, id, readColumn(id, columnsOf(doc).get(id)));
					else this.take(this.rows, id, readRow(id, rowsOf(doc).get(id)));
			}
			this.read = null;
			changed();
		};
		columnsOf(doc).observeDeep(this.observe as never);
		rowsOf(doc).observeDeep(this.observe as never);
	}

	private take<T>(into: Map<string, T>, id: string, one: T | null): void {
		if (one) into.set(id, one);
		else into.delete(id);
	}

	get schedule(): Schedule {
		return (this.read ??= { columns: inOrder(this.columns.values()), rows: inOrder(this.rows.values()) });
	}

	close(): void {
		columnsOf(this.doc).unobserveDeep(this.observe as never);
		rowsOf(this.doc).unobserveDeep(this.observe as never);
	}
}
