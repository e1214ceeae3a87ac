import { heldAt, mayHere, type PlaceFacts } from '../access/may';
import { no, yes, type Answer } from '../acts/answer';
import { maySettle, type SettleFacts } from './remarks';

/** What of a remark, its document and whoever asks decides what can be done with it now. */
export interface RemarkFacts extends PlaceFacts {
	remark: SettleFacts & { settled: boolean };
	who: { id: string; departments: readonly string[] };
}

/** Says whether an act applies to a remark; asked after Remark at its document. */
export type RemarkRule = (facts: RemarkFacts) => Answer;

const settlers =
	(then: RemarkRule): RemarkRule =>
	(facts) =>
		maySettle(facts.remark, facts.who, heldAt(facts))
			? then(facts)
			: no(
					'needs-level',
					'Whoever made it, whom it was given to, or somebody with Work here settles a remark.'
				);

/** When what can be done with a remark applies, by the name of the act. The runner's acts and the lists ask the same. */
const REMARK_RULES = {
	answerRemark: () => yes,
	settleRemark: settlers(({ remark }) => (remark.settled ? no('conflict', 'It is settled already.') : yes)),
	reopenRemark: settlers(({ remark }) => (remark.settled ? yes : no('conflict', 'It is open already.'))),
	assignRemark: ({ remark }) => (remark.settled ? no('conflict', 'It is settled; open it again first.') : yes)
} as const satisfies Record<string, RemarkRule>;

/** An act that can be asked about a remark. */
export type RemarkAct = keyof typeof REMARK_RULES;
export const REMARK_ACTS = Object.keys(REMARK_RULES) as RemarkAct[];

/** Whether an act can be done with a remark now: by the level at its document, then by its rule. */
export function mayRemark(act: RemarkAct, facts: RemarkFacts): Answer {
	const here = mayHere('remark', facts);
	return here.may ? REMARK_RULES[act](facts) : here;
}
