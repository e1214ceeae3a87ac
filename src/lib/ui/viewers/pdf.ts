import type { PDFDocumentLoadingTask, PDFDocumentProxy } from 'pdfjs-dist';
import { withoutLock } from '../../formats/pdf/attachments-locked';
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

/** An opened PDF. */
export interface ShownPdf {
	pdf: PDFDocumentProxy;
	/** Its attachments are locked, and stay so. */
	attachmentsLocked: boolean;
}

/** Why a PDF cannot be shown, from what its reader raised. */
export const pdfFault = (error: unknown): string =>
	(error as Error).name === 'PasswordException'
		? 'This PDF is locked with a password and cannot be shown.'
		: 'This PDF is damaged and cannot be shown.';

/**
 * Opens a PDF to be shown, piece by piece as it is looked at; one whose attachments alone are locked opens too.
 * @param progress is told how much has come, in percent, until it is open
 * @param signal closes it
 * Raises what the reader raises; {@link pdfFault} says it.
 */
export async function showPdf(
	url: string,
	progress: (percent: number) => void,
	signal: AbortSignal
): Promise<ShownPdf> {
	const opened = async (source: Parameters<typeof openPdf>[0]) => {
		const loading = await openPdf(source);
		signal.addEventListener('abort', () => void loading.destroy());
		// What comes later, page by page, is no longer opening it.
		let open = false;
		loading.onProgress = ({ loaded, total }: { loaded: number; total: number }) => {
			if (!open && total) progress(Math.round((loaded / total) * 100));
		};
		return loading.promise.finally(() => (open = true));
	};
	try {
		return { pdf: await opened({ url }), attachmentsLocked: false };
	} catch (error) {
		if ((error as Error).name !== 'PasswordException') throw error;
		const response = await fetch(url, { signal });
		const data = response.ok ? withoutLock(new Uint8Array(await response.arrayBuffer())) : null;
		if (!data) throw error;
		return { pdf: await opened({ data }), attachmentsLocked: true };
	}
}
