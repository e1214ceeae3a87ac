declare module 'fast-formula-parser' {
	interface Cell {
		row: number;
		col: number;
		sheet?: string;
	}
	/** A fault that a formula gives instead of a value. */
	class FormulaError extends Error {
		constructor(name: string, message?: string, details?: unknown);
		readonly details: unknown;
	}
	/** Reads and works out formulas in the notation of spreadsheets. */
	export default class FormulaParser {
		static readonly FormulaError: typeof FormulaError;
		constructor(config: {
			onCell: (cell: Cell) => unknown;
			onRange: (range: { from: Cell; to: Cell }) => unknown[][];
		});
		parse(formula: string, at: Cell): unknown;
	}
}
