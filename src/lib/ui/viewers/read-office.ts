import { Unreadable } from '../../formats/package/fault';
import { checkPackage } from '../../formats/package/size';
import { familyOf, ODT } from '../../core/files/kinds';
import { decodeText, type Encoding } from '../../core/files/encoding';

/**
 * HTML that is safe to show: nothing in it runs, and its pictures are its own. A picture from an address could have
 * anything of the application fetched in its reader's name.
 */
export async function cleanHtml(html: string): Promise<string> {
	const { default: purify } = await import('dompurify');
	const cleaner = purify();
	cleaner.addHook('uponSanitizeAttribute', (_, data) => {
		const fetches = ['src', 'srcset', 'poster', 'background', 'data'].includes(data.attrName);
		if (fetches && !/^data:image\//i.test(data.attrValue)) data.keepAttr = false;
	});
	return cleaner.sanitize(html, {
		FORBID_TAGS: ['style', 'form', 'input', 'link', 'audio', 'video', 'iframe', 'object', 'embed'],
		FORBID_ATTR: ['style']
	});
}

/**
 * Reads a text document as HTML that is safe to show.
 * @param encoding of plain kinds of text, when somebody knows it; otherwise it is told from the bytes
 * Raises {@link Unreadable} for a file that is damaged, locked or too large.
 */
export async function readText(
	bytes: ArrayBuffer,
	mediaType: string,
	encoding: Encoding | null = null
): Promise<string> {
	const written = () => decodeText(new Uint8Array(bytes), encoding).text;
	try {
		const family = familyOf(mediaType);
		if (family === 'text') {
			return written()
				.split(/\r?\n/)
				.map((line) => `<p>${escape(line)}</p>`)
				.join('');
		}
		if (family === 'markdown') {
			const { marked } = await import('marked');
			return await cleanHtml(await marked.parse(written(), { gfm: true }));
		}
		if (family === 'web') return await cleanHtml(written());
		checkPackage(new Uint8Array(bytes));
		if (mediaType === ODT) {
			const { readOdt } = await import('./read-odt');
			return await cleanHtml(await readOdt(bytes));
		}
		const { readDocx } = await import('../../formats/docx/read');
		return await cleanHtml(await readDocx(bytes));
	} catch (error) {
		if (error instanceof Unreadable) throw error;
		throw new Unreadable('This file is damaged or locked and cannot be shown.', { cause: error });
	}
}

/** The paragraphs, headings, list items and table rows of a text, for comparing. */
export function paragraphsOf(html: string): string[] {
	const body = new DOMParser().parseFromString(html, 'text/html').body;
	const found: string[] = [];
	for (const element of body.querySelectorAll('h1,h2,h3,h4,h5,h6,p,li,tr,pre')) {
		if (element.parentElement?.closest('tr, li') && element.tagName !== 'TR' && element.tagName !== 'LI')
			continue;
		const parts =
			element.tagName === 'TR'
				? [...element.children].map((c) => c.textContent?.trim() ?? '')
				: [ownText(element)];
		const text = parts.join(' | ').trim();
		if (text) found.push(text);
	}
	return found;
}

/** Text of an element without what stands in lists inside it. */
function ownText(element: Element): string {
	const copy = element.cloneNode(true) as Element;
	copy.querySelectorAll('ul, ol').forEach((inner) => inner.remove());
	return copy.textContent ?? '';
}
