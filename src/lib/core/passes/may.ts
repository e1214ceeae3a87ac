import { levelLabel } from '../access/levels';
import { no, yes, type Answer } from '../acts/answer';

/** What of a pass and of whoever asks decides what can be done with it now. */
export interface PassFacts {
	/** Whether the asker made it; whether they manage where it leads. */
	own: boolean;
	runs: boolean;
	/** Withdrawn, or past its end. */
	over: boolean;
	/** Whether its address was kept, so that it can be told again. */
	addressKept: boolean;
}

/** Says whether an act applies to a pass. */
export type PassRule = (facts: PassFacts) => Answer;

const RUNS = `Changing or sending a pass needs ${levelLabel('manage')} where it leads. You may still withdraw it.`;

const running: PassRule = ({ runs, over }) => {
	if (!runs) return no('needs-level', RUNS, { needed: 'manage' });
	return over ? no('conflict', 'The pass has ended. Make a new one.') : yes;
};

/** The address of a pass is for who made it and nobody else. */
const address: PassRule = ({ own, runs, addressKept }) => {
	if (!runs) return no('needs-level', RUNS, { needed: 'manage' });
	if (!own) return no('needs-level', 'Only who made a pass can look its address up.');
	return addressKept
		? yes
		: no('conflict', 'The address of this pass was not kept. Withdraw it and make a new one.');
};

/** When what can be done with a pass applies, by the name of the act or view. */
export const PASS_RULES = {
	changePass: running,
	passAddress: address,
	sendPass: (facts) => {
		const open = running(facts);
		return open.may ? address(facts) : open;
	}
} as const satisfies Record<string, PassRule>;

/** What can be asked about a pass. */
export type PassAct = keyof typeof PASS_RULES;
export const PASS_ACTS = Object.keys(PASS_RULES) as PassAct[];
