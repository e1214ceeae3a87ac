import type { AnswerOf } from '../../client/cupboard';

/** How much waits, and how much stands under each way in. */
export type Waiting = AnswerOf<'waiting'>;

/** One page of a way in, by its path in the project. */
interface Page {
	word: string;
	path: string;
	/** How much stands there. */
	count?: keyof Waiting;
}

/** A way into the project. */
export interface Way extends Page {
	/** The pages within it, shown as a line below the band; none when it is a single page. */
	inside: readonly Page[];
	/** Paths of pages that belong to it without standing in its line. */
	under: readonly string[];
}

/** The seven ways into a project, as they stand in the band; everything else lives inside them. */
export const WAYS: readonly Way[] = [
	{
		word: 'Today',
		path: 'today',
		count: 'forYou',
		inside: [
			{ word: 'For you', path: 'today', count: 'forYou' },
			{ word: 'In hand', path: 'in-hand', count: 'inHand' },
			{ word: 'Remarks', path: 'remarks', count: 'remarks' },
			{ word: 'New to you', path: 'new', count: 'fresh' },
			{ word: 'At hand', path: 'at-hand', count: 'atHand' },
			{ word: 'Desk', path: 'desk' }
		],
		under: ['notices']
	},
	{
		word: 'Shelves',
		path: 'shelves',
		inside: [],
		under: ['place', 'document', 'access', 'drop', 'photograph']
	},
	{
		word: 'Register',
		path: 'register',
		inside: [
			{ word: 'Deliverables', path: 'register' },
			{ word: 'What is issued', path: 'issued' }
		],
		under: []
	},
	{ word: 'Releases', path: 'releases', inside: [], under: [] },
	{
		word: 'Sharing',
		path: 'sharing',
		count: 'arrivals',
		inside: [
			{ word: 'Shared with me', path: 'sharing' },
			{ word: 'Shared by me', path: 'shared' },
			{ word: 'Passes', path: 'passes' },
			{ word: 'Hatches', path: 'hatches' },
			{ word: 'Arrivals', path: 'arrivals', count: 'arrivals' }
		],
		under: []
	},
	{
		word: 'Activity',
		path: 'activity',
		inside: [
			{ word: 'What happened', path: 'activity' },
			{ word: 'Removed', path: 'removed' }
		],
		under: []
	},
	{ word: 'People', path: 'people', inside: [], under: [] }
];

/** The way that a page of the project belongs to; none for pages of the project itself (settings, find). */
export const wayOf = (path: string): Way | undefined =>
	WAYS.find(
		(way) => way.path === path || way.under.includes(path) || way.inside.some((page) => page.path === path)
	);
