import { no, yes, type Answer } from '../acts/answer';
import { releaseNumber, type RELEASE_STATES } from '.';
import type { Turn } from './route';

/** What of a release and of whoever asks decides what can be done with it now. */
export interface ReleaseFacts {
	number: number;
	state: (typeof RELEASE_STATES)[number];
	/** Whether the asker is a document controller of the project, and whether the route names them or who they speak for. */
	controller: boolean;
	onRoute: boolean;
	/** Whether the route names the asker themselves, and whoever decides does not build (T3). */
	named: boolean;
	/** Whether it is the asker's turn, while it waits for approval. */
	turn: true | Exclude<Turn, { may: true }>['why'];
	/** Whether the asker had a hand in the build, and so does not decide on it: began, changed or asked for it (T3). */
	hand: boolean;
	/** Name of the step that nobody is left to approve, since who could had a hand in the build; null where there is none. */
	stuck: string | null;
	documents: number;
	/** Why it cannot go out to those it names, in a sentence; null where it can. */
	unshared: string | null;
	/** Whether one of its passes still opens. */
	openPass: boolean;
	/** Whether issuing asks for a code of two-step sign-in (T11), which the asker has not set up. */
	codeless: boolean;
}

/** Who is asked to do what with a release. `route`: controllers, and those whom the route names. */
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
	if (!out.may || !facts.named) return out;
	return no(
		'conflict',
		'You are asked to decide on this release, and whoever decides does not change what is decided on. Send it back with what you miss, or have somebody else asked.'
	);
};

const NOT_NOW: Record<Exclude<Turn, { may: true }>['why'], string> = {
	'not-named': 'It is not your turn to decide on it.',
	decided: 'You have approved this step already.',
	spoken: 'Whoever you would decide for has approved this step already.'
};

const waiting: ReleaseRule = ({ state }) =>
	state === 'in-review' ? yes : no('conflict', 'The release is not waiting for approval.');

/** For what is answered to recipients who ask to bring in colleagues. */
const asColleagues: ReleaseRule = ({ state }) =>
	state === 'issued' || state === 'superseded'
		? yes
		: no('conflict', 'Colleagues are asked for once the release is issued.');

/**
 * When what can be done with a release applies, by the name of the act (T3, T10, T11). The runner asks before it runs,
 * the view of a release sends the answers along, and buttons show them.
 */
export const RELEASE_RULES = {
	askApproval: (facts) => {
		const build = builds(facts);
		if (!build.may) return build;
		if (!facts.documents) return no('conflict', 'The release holds no documents.');
		if (facts.unshared !== null) return no('conflict', facts.unshared);
		return facts.stuck === null
			? yes
			: no(
					'conflict',
					`“${facts.stuck}” has nobody left who could approve it: who built, changed or asked for a release does not decide on it. Name somebody else.`
				);
	},
	approveRelease: (facts) => {
		const asked = waiting(facts);
		if (!asked.may) return asked;
		if (facts.hand) return no('conflict', 'Nobody decides on what they built, changed or asked for.');
		return facts.turn === true ? yes : no('conflict', NOT_NOW[facts.turn]);
	},
	sendBack: (facts) => {
		const asked = waiting(facts);
		return !asked.may || facts.turn !== 'not-named' ? asked : no('conflict', NOT_NOW['not-named']);
	},
	issueRelease: ({ state, codeless }) => {
		if (state === 'approved')
			return codeless
				? no(
						'conflict',
						'Issuing asks for a code of your two-step sign-in in this project. Set it up on your own page first.'
					)
				: yes;
		return no(
			'conflict',
			state === 'issued' || state === 'superseded'
				? 'The release is issued already.'
				: 'The release needs its approval first.'
		);
	},
	withdrawPass: ({ openPass }) =>
		openPass ? yes : no('conflict', 'The release has no pass that is still open.'),
	letColleagueIn: asColleagues,
	refuseColleague: asColleagues,
	consolidateVerdicts: ({ state }) =>
		state === 'issued' || state === 'superseded'
			? yes
			: no('conflict', 'Verdicts come once the release is issued.'),
	takeReleasePackage: ({ state }) =>
		state === 'issued' || state === 'superseded'
			? yes
			: no('conflict', 'There is nothing to prove before the release is issued.'),
	buildAnother: ({ state }) =>
		['issued', 'superseded', 'cancelled'].includes(state)
			? yes
			: no('conflict', 'This release is still being built; change it instead.'),
	changeRelease: notOut,
	remarkInRelease: notOut,
	cancelRelease: notOut,
	acceptChecks: builds,
	addToRelease: builds,
	addListed: builds,
	addReferences: builds,
	leaveOut: builds,
	orderDocuments: builds,
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
	if (who === 'approver' && !facts.onRoute)
		return no('needs-level', 'Only those whom the route of the release names can do this.');
	return applies ? applies(facts) : yes;
}
