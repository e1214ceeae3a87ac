import { styleOf, type Styles } from './odt-styles';

/* How programs write lists of OpenDocument texts, put in order before they are read. */

const isList = (element: Element | null | undefined): element is Element => element?.nodeName === 'text:list';

/** A list within an item that holds nothing else: the item only makes what is in it one deeper. */
const deeper = (item: Element): Element | null =>
	item.childElementCount === 1 && isList(item.firstElementChild) ? item.firstElementChild : null;

/** Puts the items of a list, which lies so deep within another, where they belong in the list before that other. */
function putDeep(before: Element, depth: number, list: Element, style: string): void {
	let [place, placeStyle] = [before, styleOf(before)];
	for (let at = 0; at < depth; at++) {
		const item = place.lastElementChild!;
		const inner = item.lastElementChild;
		if (!isList(inner) || (at === depth - 1 && (styleOf(inner) || placeStyle) !== style)) {
			list.setAttribute('text:style-name', style);
			item.append(list);
			return;
		}
		[place, placeStyle] = [inner, styleOf(inner) || placeStyle];
	}
	place.append(...list.childNodes);
}

/**
 * Puts lists together that a word processor has written one after the other, where one has another within it: the inner
 * one as a list of its own with empty items around, and the rest of the outer one as a list that goes on (ODF 1.3,
 * part 3, 5.3).
 */
export function joinLists(body: Element): void {
	/** Lists that another was put into; what follows them in their style is the rest of them. */
	const joined = new Set<Element>();
	for (const list of [...body.getElementsByTagName('text:list')]) {
		const before = list.previousElementSibling;
		if (!isList(before) || !before.lastElementChild) continue;
		const goesOn =
			styleOf(list) === styleOf(before) &&
			(joined.has(before) ||
				list.hasAttribute('text:continue-list') ||
				list.getAttribute('text:continue-numbering') === 'true');
		for (let item = list.firstElementChild; item; item = list.firstElementChild) {
			let [inner, depth, style] = [deeper(item), 0, styleOf(list)];
			if (!inner && !goesOn && item.getAttribute('text:style-override') !== styleOf(before)) break;
			if (!inner) before.append(item);
			else {
				for (
					let next: Element | null = inner;
					next;
					next = next.firstElementChild && deeper(next.firstElementChild)
				)
					[inner, depth, style] = [next, depth + 1, styleOf(next) || style];
				item.remove();
				joined.add(before);
				putDeep(before, depth, inner, style);
			}
		}
		if (!list.firstElementChild) list.remove();
	}
}

/** Headings that are numbered as a list is are headings all the same, whose numbers are worked out. */
export function freeHeadings(body: Element, styles: Styles): void {
	for (const heading of [...body.querySelectorAll('*')]) {
		if (!styles.headingLevel(heading)) continue;
		let around = heading.parentElement;
		while (around?.nodeName === 'text:list-item' && isList(around.parentElement)) {
			const list = around.parentElement;
			list.before(heading);
			if (!around.childElementCount) around.remove();
			if (!list.childElementCount) list.remove();
			around = heading.parentElement;
		}
	}
}
