import { asc, eq } from 'drizzle-orm';
import { among, type Querier } from '../platform/db';
import { person, remarkAnswer } from '../platform/db/schema';

/** What was answered to a remark, by whom and when (ISO 8601). */
export interface Answered {
	by: string;
	byId: string;
	at: string;
	text: string;
}

/** What was answered to remarks, in order, by the id of each; nothing stands for those that nobody answered. */
export async function answersTo(db: Querier, remarks: readonly string[]): Promise<Map<string, Answered[]>> {
	const rows = await db
		.select({
			remark: remarkAnswer.remarkId,
			by: person.name,
			byId: remarkAnswer.createdBy,
			at: remarkAnswer.createdAt,
			text: remarkAnswer.text
		})
		.from(remarkAnswer)
		.innerJoin(person, eq(person.id, remarkAnswer.createdBy))
		.where(among(remarkAnswer.remarkId, remarks))
		.orderBy(asc(remarkAnswer.createdAt));
	const found = new Map<string, Answered[]>();
	for (const { remark, at, ...one } of rows)
		found.set(remark, [...(found.get(remark) ?? []), { ...one, at: at.toISOString() }]);
	return found;
}
