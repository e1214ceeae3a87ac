import type { Snippet } from 'svelte';
import type { ViewPort } from './view-port.svelte';

/** One side of a sheet on screen, for what lies over it: remarks and markup. */
export interface Face {
	port: ViewPort;
	/** Which page of the file it is; 1 where there is only one. */
	page: number;
	/** What one of its units is, for people: pt, px, or the drawing's unit. */
	unit: string;
	/** Of a place in view coordinates (y down, from the upper left corner), its lasting coordinates, and back. */
	lasting(x: number, y: number): { x: number; y: number };
	inView(x: number, y: number): { x: number; y: number };
	/** Holds a place in view coordinates on to the sheet's own geometry where it is near; null where nothing is. */
	hold?: (x: number, y: number) => { x: number; y: number } | null;
	/** Turns to another page. */
	turnTo(page: number): void;
}

/** For sheets whose lasting coordinates are those of the view: PDF pages and pictures. */
export const asSeen = {
	lasting: (x: number, y: number) => ({ x, y }),
	inView: (x: number, y: number) => ({ x, y })
};

/** What every viewer of sheets is given. */
export interface SheetViewer {
	url: string;
	title: string;
	/** Says why the file cannot be shown. */
	failed: (sentence: string) => void;
	/** What lies over the sheet: remarks and markup. */
	layer?: Snippet<[Face]>;
}
