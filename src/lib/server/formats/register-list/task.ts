import type { Curves } from './curves-picture';

/** A deliverable as a list says it. Days are YYYY-MM-DD. */
export interface ListedLine {
	number: string;
	title: string;
	department: string;
	/** Name and mail address, by which an import finds them again. */
	responsible: string;
	weight: number;
	stages: Record<string, { planned: string | null; actual: string | null; forecast: string | null }>;
	slip: number | null;
	status: string;
	revision: string;
}

/** What the worker needs to write the register as a file. */
export interface RegisterListTask {
	task: 'register-list';
	format: 'xlsx' | 'csv' | 'pdf';
	/** Name of the project, the day it is written, and what the list is narrowed to, in words. */
	about: { project: string; today: string; narrowed: string };
	stages: { key: string; name: string }[];
	lines: ListedLine[];
	curves: Curves;
}
