import type { MenuEntry, MenuGroup } from '../kit/menu';

/** Where something that can be done stands in the menu. */
export const OFFER_GROUPS = { work: 'Work', show: 'Show', send: 'Send', keep: 'Look after' } as const;

/** Something that can be done with a document now: it is in the menu, or stands beside it as a button. */
export interface Offer extends Omit<MenuEntry, 'act'> {
	id: string;
	group: keyof typeof OFFER_GROUPS;
	act?: () => void;
	/** Where it leads, when it is a way and not an act. */
	href?: string;
	/** It gives a file. */
	download?: boolean;
	/** It is going on: the button is pressed. */
	on?: boolean;
}

/** What one most likely does with a document now, in the order in which it is looked for; and what is near. */
const LIKELY = {
	page: {
		main: ['hand-in', 'stop-waiting', 'ask', 'lock', 'remark', 'download'],
		near: ['lock', 'download', 'mark-up', 'compare'],
		/** So many stand near the main one; where a title stands beside them, fewer. */
		many: 2
	},
	block: {
		main: ['open'],
		near: ['hand-in', 'stop-waiting', 'ask', 'lock', 'download'],
		many: 3
	}
} as const;

/**
 * Sorts what can be done into the main act, a few near ones and a menu.
 * @param offers all that can be done now
 * @param on the document's own page, or the title block of a list
 */
export function arrange(
	offers: readonly Offer[],
	on: keyof typeof LIKELY
): { main: Offer | null; near: Offer[]; rest: Offer[] } {
	const offered = (ids: readonly string[]) => ids.flatMap((id) => offers.find((one) => one.id === id) ?? []);
	const [main = null] = offered(LIKELY[on].main);
	const near = offered(LIKELY[on].near)
		.filter((one) => one !== main)
		.slice(0, LIKELY[on].many);
	return { main, near, rest: offers.filter((one) => one !== main && !near.includes(one)) };
}

/** The menu of what stands nowhere as a button, in its groups. */
export const menuOf = (rest: readonly Offer[], follow: (offer: Offer) => void): MenuGroup[] =>
	Object.entries(OFFER_GROUPS).map(([group, head]) => ({
		head,
		entries: rest
			.filter((offer) => offer.group === group)
			.map((offer) => ({ ...offer, act: offer.act ?? (() => follow(offer)) }))
	}));
