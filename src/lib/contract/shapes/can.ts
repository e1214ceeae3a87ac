import { z } from 'zod';

/** Whether an act can be done now; where it cannot, the sentence of the refusal. */
const mayBe = z.strictObject({ may: z.boolean(), why: z.string() });

/** What can be done with something now, by the name of the act. */
export const canDo = <Act extends string>(acts: readonly Act[]) =>
	z.strictObject(Object.fromEntries(acts.map((name) => [name, mayBe])) as Record<Act, typeof mayBe>);
