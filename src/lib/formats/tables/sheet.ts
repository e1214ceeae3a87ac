/** Most rows of a sheet and columns of a row that are read. */
export interface Most {
	rows: number;
	columns: number;
}
