import { no, yes, type Answer } from '../acts/answer';
import { releaseNumber, type RELEASE_STATES } from '.';

/** What of a release and of whoever asks decides what can be done with it now. */
export interface ReleaseFacts {
	number: number;
	state: (typeof RELEASE_STATES)[number];
	/** Whether the asker is a document controller of the project, and the one who approves this. */
	controller: boolean;
	approver: boolean;
	/** Whether the asker had a hand in the build: began, changed or asked for it (T3); and whether its approver had. */
	hand: boolean;
	approverHand: boolean;
	documents: number;
	/** Whether its pass still opens. */
	openPass: boolean;
}

/** Who is asked to do what with a release. `route`: controllers, the builder and the approver. */
export type ReleaseRole = 'route' | 'controller' | 'approver';

/** Says whether an act applies to a release; asked after the role that it needs. */
export type ReleaseRule = (facts: ReleaseFacts) => Answer;

/** For what is done while it is not out yet. */
const notOut: ReleaseRule = ({ state, number }) => {
	if (state === 'issued' || state === 'superseded')
		return no('conflict', `Release ${releaseNumber(number)} is issued; it cannot change any more.`);
	return state === 'cancelled' ? no('conflict', `Release ${releaseNumber(number)} was cancelled.`) : yes;
};

/** For what changes the build: nobody changes what they are asked to decide on. */
const builds: ReleaseRule = (facts) => {
	const out = notOut(facts);
	if (!out.may || !facts.approver) return out;
	return no(
		'conflict',
		'You are asked to decide on this release, and whoever decides does not change what is decided on. Send it back with what you miss, or have somebody else asked.'
	);
};

const waiting: ReleaseRule = ({ state }) =>
	state === 'in-review' ? yes : no('conflict', 'The release is not waiting for approval.');

/**
 * When what can be done with a release applies, by the name of the act (T3, T10, T11). The runner asks before it runs,
 * the view of a release sends the answers along, and buttons show them.
 */
export const RELEASE_RULES = {
	askApproval: (facts) => {
		const build = builds(facts);
		if (!build.may) return build;
		if (facts.state === 'in-review') return no('conflict', 'Its approval is asked for already.');
		if (facts.state === 'approved') return no('conflict', 'It is approved already; issue it, or change it.');
		if (!facts.documents) return no('conflict', 'The release holds no documents.');
		return facts.approverHand
			? no('conflict', 'Who is to approve it has a hand in this build. Choose a second person, who has none.')
			: yes;
	},
	approveRelease: (facts) => {
		const asked = waiting(facts);
		if (!asked.may || !facts.hand) return asked;
		return no('conflict', 'Nobody decides on what they built, changed or asked for.');
	},
	sendBack: waiting,
	issueRelease: ({ state }) => {
		if (state === 'approved') return yes;
		return no(
			'conflict',
			state === 'issued' || state === 'superseded'
				? 'The release is issued already.'
				: 'The release needs its approval first.'
		);
	},
	withdrawPass: ({ openPass }) =>
		openPass ? yes : no('conflict', 'The release has no pass that is still open.'),
	changeRelease: notOut,
	cancelRelease: notOut,
	acceptChecks: builds,
	addToRelease: builds,
	leaveOut: builds,
	takeNewest: builds
} as const satisfies Record<string, ReleaseRule>;

/** An act that can be asked about a release. */
export type ReleaseAct = keyof typeof RELEASE_RULES;
export const RELEASE_ACTS = Object.keys(RELEASE_RULES) as ReleaseAct[];

/** Whether an act can be done with a release now: by role, then by its rule, in the order in which the runner asks. */
export function mayRelease(
	{ who, applies }: { who: ReleaseRole; applies?: ReleaseRule },
	facts: ReleaseFacts
): Answer {
	if (who === 'controller' && !facts.controller)
		return no('needs-level', 'Only a document controller of the project can do this.');
	if (who === 'approver' && !facts.approver)
		return no('needs-level', 'Only the person asked for approval can do this.');
	return applies ? applies(facts) : yes;
}
