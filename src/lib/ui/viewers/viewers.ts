import type { Component, Snippet } from 'svelte';
import type { Family, ShownByServer } from '../../core/files/kinds';
import DxfViewer from './DxfViewer.svelte';
import FilmViewer from './FilmViewer.svelte';
import PdfViewer from './PdfViewer.svelte';
import PictureViewer from './PictureViewer.svelte';
import type { Face } from './sheet-face';
import type { FileWithin } from './shown';
import TableViewer from './TableViewer.svelte';
import TextViewer from './TextViewer.svelte';
import ZipViewer from './ZipViewer.svelte';

/** What a viewer is given; each takes of it what it needs. */
interface ViewerProps {
	url: string;
	title: string;
	mediaType: string;
	failed: (sentence: string) => void;
	/** Shows a file that lies within. */
	open: (file: FileWithin) => void;
	/** What lies over a sheet. */
	layer: Snippet<[Face]> | undefined;
}

/** How a family of files is shown in the browser, and up to how many bytes; sound and film are streamed. */
interface Viewer {
	view: Component<ViewerProps>;
	most: number;
}

const text: Viewer = { view: TextViewer, most: 40e6 };
const table: Viewer = { view: TableViewer, most: 40e6 };
const film: Viewer = { view: FilmViewer, most: Infinity };

/** Who shows which family of files, of those that the server does not show; null for those that are only downloaded. */
export const VIEWERS: Record<Exclude<Family, ShownByServer>, Viewer | null> = {
	pdf: { view: PdfViewer, most: 2e9 },
	drawing: { view: DxfViewer, most: 60e6 },
	picture: { view: PictureViewer, most: 200e6 },
	text,
	markdown: text,
	letter: text,
	workbook: table,
	csv: table,
	archive: { view: ZipViewer, most: 2e9 },
	sound: film,
	film,
	web: null,
	package: null,
	other: null
};
