import * as Y from 'yjs';
import type { Present } from '../../core/live/live';
import {
	arranged,
	AS_IT_IS,
	keptLook,
	lookText,
	totalOf,
	valueIn,
	type Arrangement,
	type Filter
} from '../../core/schedule/arrange';
import { cellFrom, cellKey, cellText, countedOn, faultsOf, type Faults } from '../../core/schedule/cell';
import {
	MOST_ROWS,
	type CellValue,
	type Column,
	type ColumnFields,
	type Row,
	type Schedule
} from '../../core/schedule/column';
import { pastedCells } from '../../core/schedule/exchange';
import { Formulas, type Worked } from '../../core/schedule/formula';
import {
	addColumn,
	addRows,
	changeColumn,
	columnsOf,
	moveColumn,
	moveRows,
	removeColumn,
	removeRows,
	rowsOf,
	ScheduleReader,
	setCells
} from '../../core/schedule/shared';
import { KEPT } from './kept';
import { LiveLine } from './line.svelte';
import { newId } from './new-id';

/** Origin of changes made here, so that undoing takes back only these. */
const MINE = 'mine';

/** A cell by the ids of its row and column, which stay when others put rows in or move them. */
export interface CellAt {
	row: string;
	column: string;
}

/** Where somebody else is in a schedule. */
export interface Elsewhere {
	user: Present;
	cell: CellAt | null;
}

/** A live schedule on screen: what it holds, how one looks at it, what is chosen, and the line to the others. */
export class Grid {
	readonly line: LiveLine;
	private readonly reader: ScheduleReader;
	private readonly undoing: Y.UndoManager;
	private queued = false;
	/** Under what this browser keeps how one looks at the schedule. */
	private readonly look: string;

	schedule = $state.raw<Schedule>({ columns: [], rows: [] });
	arrangement = $state.raw<Arrangement>(AS_IT_IS.arrangement);
	/** Columns at the left that stay in sight. */
	frozen = $state(AS_IT_IS.frozen);
	/** The cell that keys go to, and the other corner of what is chosen. */
	cursor = $state.raw<CellAt | null>(null);
	corner = $state.raw<CellAt | null>(null);
	/** What is being typed into the cell of the cursor. */
	editing = $state<string | null>(null);
	others = $state.raw<Elsewhere[]>([]);
	canUndo = $state(false);
	canRedo = $state(false);
	opened = $state(false);

	readonly columns = $derived(this.schedule.columns);
	readonly formulas = $derived(new Formulas(this.columns));
	readonly rows = $derived(arranged(this.schedule.rows, this.columns, this.arrangement, this.formulas));
	readonly faults: Faults = $derived(faultsOf(this.schedule));

	constructor(
		room: string,
		me: Present,
		readonly mayWrite: () => boolean
	) {
		this.line = new LiveLine(room, me);
		this.look = `${KEPT}/${me.id}/${room}`;
		const { doc, awareness } = this.line;
		this.reader = new ScheduleReader(doc, () => this.take());
		this.undoing = new Y.UndoManager([columnsOf(doc), rowsOf(doc)] as never, {
			trackedOrigins: new Set([MINE])
		});
		const undoable = () => {
			this.canUndo = this.undoing.canUndo();
			this.canRedo = this.undoing.canRedo();
		};
		this.undoing.on('stack-item-added', undoable);
		this.undoing.on('stack-item-popped', undoable);
		awareness.on('change', () => {
			this.others = [...awareness.getStates()].flatMap(([client, state]) =>
				client === doc.clientID || !state.user ? [] : [state as unknown as Elsewhere]
			);
		});
		void this.line.ready().then(() => {
			this.take();
			this.opened = true;
			({ arrangement: this.arrangement, frozen: this.frozen } = keptLook(
				localStorage.getItem(this.look),
				this.reader.schedule.columns
			));
		});
	}

	/** Takes what changed, once for all changes of a moment. */
	private take(): void {
		if (this.queued) return;
		this.queued = true;
		queueMicrotask(() => {
			this.queued = false;
			this.schedule = this.reader.schedule;
		});
	}

	close(): void {
		this.reader.close();
		this.line.close();
	}

	private change(doing: (doc: Y.Doc) => void): void {
		if (!this.mayWrite()) return;
		// What was done in one go is taken back in one go.
		this.undoing.stopCapturing();
		this.line.doc.transact(() => doing(this.line.doc), MINE);
		this.schedule = this.reader.schedule;
	}
	undo(): void {
		this.undoing.undo();
	}
	redo(): void {
		this.undoing.redo();
	}

	private at(cell: CellAt | null): { row: number; column: number } | null {
		if (!cell) return null;
		const row = this.rows.findIndex((r) => r.id === cell.row);
		const column = this.columns.findIndex((c) => c.id === cell.column);
		return row < 0 || column < 0 ? null : { row, column };
	}
	/** What is chosen, as indices of rows and columns as they are seen; both ends belong to it. */
	readonly chosen = $derived.by(() => {
		const [a, b] = [this.at(this.cursor), this.at(this.corner ?? this.cursor)];
		if (!a || !b) return null;
		return {
			top: Math.min(a.row, b.row),
			bottom: Math.max(a.row, b.row),
			left: Math.min(a.column, b.column),
			right: Math.max(a.column, b.column),
			row: a.row,
			column: a.column
		};
	});
	get column(): Column | null {
		return this.columns.find((c) => c.id === this.cursor?.column) ?? null;
	}
	get row(): Row | null {
		return this.schedule.rows.find((r) => r.id === this.cursor?.row) ?? null;
	}
	private cellAt(row: number, column: number): CellAt | null {
		const [r, c] = [this.rows[row], this.columns[column]];
		return r && c ? { row: r.id, column: c.id } : null;
	}

	/** Puts the cursor on a cell; with `extend` what is chosen reaches from where it began. */
	choose(cell: CellAt | null, extend = false): void {
		this.editing = null;
		if (extend && this.cursor) this.corner = cell;
		else {
			this.cursor = cell;
			this.corner = null;
			this.line.awareness.setLocalStateField('cell', cell);
		}
	}
	/** Moves the cursor by rows and columns. */
	step(down: number, across: number, extend = false): void {
		const from = this.at((extend && this.corner) || this.cursor) ?? { row: 0, column: 0 };
		const row = Math.max(0, Math.min(this.rows.length - 1, from.row + down));
		const column = Math.max(0, Math.min(this.columns.length - 1, from.column + across));
		this.choose(this.cellAt(row, column), extend);
	}
	chooseAll(): void {
		this.cursor = this.cellAt(0, 0);
		this.corner = this.cellAt(this.rows.length - 1, this.columns.length - 1);
	}

	/** What a cell holds, worked out where it is a formula. */
	worked(row: Row, column: Column): Worked {
		if (column.kind === 'formula') return this.formulas.of(row, column);
		return { value: row.cells[column.id] ?? null };
	}
	faultOf(row: Row, column: Column): string | null {
		const worked = column.kind === 'formula' ? this.worked(row, column) : null;
		if (worked && 'fault' in worked) return worked.fault;
		return this.faults.get(cellKey(row.id, column.id)) ?? null;
	}
	total(column: Column): number | null {
		return totalOf(this.rows, column, this.formulas);
	}

	/** Begins typing into the cell of the cursor. @param text what it begins with; what it holds when left out */
	edit(text?: string): void {
		const { row, column } = this;
		if (!row || !column || !this.mayWrite() || column.kind === 'formula') return;
		this.editing = text ?? cellText(row.cells[column.id]);
	}
	/** Keeps what was typed. */
	commit(): void {
		const { row, column, editing } = this;
		this.editing = null;
		if (editing === null || !row || !column) return;
		const value = cellFrom(column, editing);
		if ((row.cells[column.id] ?? null) === value) return;
		this.change((doc) => setCells(doc, [{ row: row.id, column: column.id, value }]));
	}

	/** The cells that are chosen and hold something of their own. */
	private chosenCells(): { row: Row; column: Column }[] {
		const { chosen } = this;
		if (!chosen) return [];
		return this.rows
			.slice(chosen.top, chosen.bottom + 1)
			.flatMap((row) => this.columns.slice(chosen.left, chosen.right + 1).map((column) => ({ row, column })));
	}
	clear(): void {
		const cells = this.chosenCells().filter(({ column }) => column.kind !== 'formula');
		this.change((doc) =>
			setCells(
				doc,
				cells.map(({ row, column }) => ({ row: row.id, column: column.id, value: null }))
			)
		);
	}
	/** Rows of what is chosen, as texts. */
	copied(): string[][] {
		const { chosen } = this;
		if (!chosen) return [];
		return this.rows
			.slice(chosen.top, chosen.bottom + 1)
			.map((row) =>
				this.columns
					.slice(chosen.left, chosen.right + 1)
					.map((column) => cellText(valueIn(row, column, this.formulas)))
			);
	}
	/**
	 * Puts pasted rows in from the cursor on, adding rows where there are not enough; one value fills everything that is
	 * chosen. Gives how many rows were added.
	 */
	paste(rows: readonly (readonly string[])[]): number {
		const { chosen } = this;
		if (!chosen || !rows.length) return 0;
		const single = rows.length === 1 && rows[0]!.length === 1;
		const given = single
			? Array.from({ length: chosen.bottom - chosen.top + 1 }, () =>
					Array<string>(chosen.right - chosen.left + 1).fill(rows[0]![0]!)
				)
			: rows;
		const cells = pastedCells(this.columns, chosen.left, given);
		const there = this.rows.slice(chosen.top, chosen.top + cells.length);
		const more = cells.slice(there.length, there.length + MOST_ROWS - this.schedule.rows.length);
		this.change((doc) => {
			setCells(
				doc,
				there.flatMap((row, i) =>
					Object.entries(cells[i]!).map(([column, value]) => ({ row: row.id, column, value }))
				)
			);
			if (more.length) addRows(doc, this.schedule.rows, this.schedule.rows.length, more, newId);
		});
		return more.length;
	}
	/** Fills what is chosen with its first row; with `counting` the figures at the end of each value go up. */
	fillDown(counting: boolean): void {
		const { chosen } = this;
		if (!chosen || chosen.bottom === chosen.top) return;
		const [first, ...below] = this.rows.slice(chosen.top, chosen.bottom + 1);
		const columns = this.columns.slice(chosen.left, chosen.right + 1).filter((c) => c.kind !== 'formula');
		this.change((doc) =>
			setCells(
				doc,
				below.flatMap((row, i) =>
					columns.map((column) => {
						const value = first!.cells[column.id] ?? null;
						return { row: row.id, column: column.id, value: counting ? countedOn(value, i + 1) : value };
					})
				)
			)
		);
	}

	/** Puts empty rows in before, or behind, what is chosen. */
	insert(count: number, where: 'before' | 'behind' | 'end'): void {
		const rows = this.schedule.rows;
		const { chosen } = this;
		const beside =
			chosen && where !== 'end' ? this.rows[where === 'before' ? chosen.top : chosen.bottom] : null;
		const at = beside ? rows.indexOf(beside) + (where === 'behind' ? 1 : 0) : rows.length;
		const many = Math.min(count, MOST_ROWS - rows.length);
		let ids: string[] = [];
		this.change(
			(doc) => (ids = addRows(doc, rows, at, Array<Record<string, CellValue>>(many).fill({}), newId))
		);
		if (ids[0]) this.choose({ row: ids[0], column: this.cursor?.column ?? this.columns[0]!.id });
	}
	/** Rows that what is chosen lies in. */
	get chosenRows(): Row[] {
		const { chosen } = this;
		return chosen ? this.rows.slice(chosen.top, chosen.bottom + 1) : [];
	}
	removeChosen(): void {
		const { chosen, chosenRows } = this;
		if (!chosen) return;
		const next = this.rows[chosen.bottom + 1] ?? this.rows[chosen.top - 1];
		const column = this.cursor!.column;
		this.change((doc) =>
			removeRows(
				doc,
				chosenRows.map((r) => r.id)
			)
		);
		this.choose(next ? { row: next.id, column } : null);
	}
	/** Moves the chosen rows one up or down; only while the rows stand in their own order. */
	shift(by: 1 | -1): void {
		const { chosen } = this;
		if (!chosen || this.arrangement.sort) return;
		const ids = new Set(this.chosenRows.map((r) => r.id));
		const beside = this.rows[by < 0 ? chosen.top - 1 : chosen.bottom + 1];
		if (!beside) return;
		const rows = this.schedule.rows;
		this.change((doc) => moveRows(doc, rows, ids, rows.indexOf(beside) + (by < 0 ? 0 : 1)));
	}

	sortBy(column: string, descending: boolean | null): void {
		this.arrangement = { ...this.arrangement, sort: descending === null ? null : { column, descending } };
		this.keepLook();
	}
	filter(column: string, filter: Filter | null): void {
		const filters = { ...this.arrangement.filters };
		if (filter) filters[column] = filter;
		else delete filters[column];
		this.arrangement = { ...this.arrangement, filters };
		this.keepLook();
	}
	/** Keeps so many columns at the left in sight. */
	freeze(columns: number): void {
		this.frozen = columns;
		this.keepLook();
	}
	/** Whoever comes back finds the schedule as they looked at it. */
	private keepLook(): void {
		localStorage.setItem(this.look, lookText(this));
	}
	get filtered(): boolean {
		return this.rows.length < this.schedule.rows.length;
	}

	addColumn(at: number, fields: ColumnFields): void {
		this.change((doc) => addColumn(doc, this.columns, at, fields, newId()));
	}
	/** Changes a column; what its cells hold is read anew for another kind, so that typed numbers become numbers. */
	changeColumn(column: Column, fields: Partial<ColumnFields>): void {
		this.change((doc) => {
			changeColumn(doc, column.id, fields);
			if (fields.kind === undefined || fields.kind === column.kind || fields.kind === 'formula') return;
			const as = { ...column, ...fields };
			setCells(
				doc,
				this.schedule.rows.flatMap((row) => {
					const value = row.cells[column.id];
					return value === undefined
						? []
						: [{ row: row.id, column: column.id, value: cellFrom(as, cellText(value)) }];
				})
			);
		});
	}
	moveColumn(column: Column, by: 1 | -1): void {
		const at = this.columns.indexOf(column);
		this.change((doc) => moveColumn(doc, this.columns, column.id, by < 0 ? Math.max(0, at - 1) : at + 2));
	}
	removeColumn(column: Column): void {
		this.change((doc) => removeColumn(doc, column.id));
	}

	/** Puts the cursor on the next cell that breaks a rule, and gives whether there is one. */
	nextFault(): boolean {
		const { columns, rows } = this;
		const from = this.at(this.cursor);
		const start = from ? from.row * columns.length + from.column + 1 : 0;
		const count = rows.length * columns.length;
		for (let i = 0; i < count; i++) {
			const at = (start + i) % count;
			const [row, column] = [rows[Math.floor(at / columns.length)]!, columns[at % columns.length]!];
			if (!this.faults.has(cellKey(row.id, column.id))) continue;
			this.choose({ row: row.id, column: column.id });
			return true;
		}
		return false;
	}
}
