import { lookingOnly } from '../../../core/access/may';
import { told, type Answer, type Can } from '../../../core/acts/answer';

/** What the reader of a view can do, as the acts would answer; who looks as somebody else can change nothing. */
export const canNow = <Act extends string>(
	{ self, person }: { self: { id: string }; person: { id: string } },
	acts: readonly Act[],
	answer: (act: Act) => Answer
): Can<Act> => told(acts, (act) => (self.id === person.id ? answer(act) : lookingOnly()));
