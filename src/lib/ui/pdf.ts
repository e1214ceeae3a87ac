import type { PDFDocumentLoadingTask } from 'pdfjs-dist';
import workerUrl from 'pdfjs-dist/build/pdf.worker.min.mjs?url';

/** Begins to open a PDF, from an address or from its bytes; with everything it needs from our own server. */
export async function openPdf(
	source: { url: string } | { data: Uint8Array }
): Promise<PDFDocumentLoadingTask> {
	const pdfjs = await import('pdfjs-dist');
	pdfjs.GlobalWorkerOptions.workerSrc = workerUrl;
	return pdfjs.getDocument({
		...source,
		cMapUrl: '/pdfjs/cmaps/',
		cMapPacked: true,
		standardFontDataUrl: '/pdfjs/standard_fonts/',
		wasmUrl: '/pdfjs/wasm/',
		isEvalSupported: false,
		enableXfa: false
	});
}
