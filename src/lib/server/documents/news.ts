import { sql, type SQL } from 'drizzle-orm';
import { live, type Reach } from '../access/reach';
import { place } from '../platform/db/schema';

/** Most changes looked through for what is new to somebody. */
const MOST_NEWS = 50_000;

/**
 * Documents that others changed since the reader looked (decision 11).
 * @param reach of the reader
 * @param columns what is asked of each; may name columns of places, and `news.id` and `news.changed_at`
 * @returns SQL of a question; what groups, orders or limits it may be added
 */
export function newsOf(reach: Reach, columns: SQL): SQL {
	const { projectId, personId } = reach.subject;
	return sql`
		with news as materialized (
			select d.id, d.changed_at from document d
			where d.project_id = ${projectId} and d.live and d.changed_by is distinct from ${personId}
				and d.changed_at > (select seen_until from member where project_id = ${projectId} and person_id = ${personId})
			order by d.changed_at desc limit ${MOST_NEWS}
		)
		select ${columns} from news join ${place} on ${place.id} = news.id
		left join seen s on s.document_id = news.id and s.person_id = ${personId}
		where (s.at is null or news.changed_at > s.at) and ${live()} and ${reach.sees(place.scope)}`;
}
