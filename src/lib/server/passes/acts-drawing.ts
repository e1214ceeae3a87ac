import { and, count, eq, inArray, sql, sum } from 'drizzle-orm';
import * as contract from '../../contract/answering';
import { Problem } from '../../core/acts/problem';
import { isSheetKind } from '../../core/files/kinds';
import { mayDraw, MOST_DRAWN, MOST_DRAWN_POINTS } from '../../core/releases/drawn';
import { verdictMark } from '../platform/db/schema';
import { does } from '../platform/runner/act';
import { answering } from './answering';

export const drawMarks = does(contract.drawMarks, {
	async run({ tx, project, pass: held, release, now }, { document, drawn, gone }) {
		const { passId, item } = await answering(tx, held, release, document);
		const its = and(eq(verdictMark.passId, passId), eq(verdictMark.documentId, document));
		if (gone.length) await tx.delete(verdictMark).where(and(its, inArray(verdictMark.id, gone)));
		if (!drawn.length) return {};
		if (!mayDraw(project.settings))
			throw new Problem(
				'conflict',
				'In this project nobody draws on the sheets of a release. Place a remark, or send a file with your marks.'
			);
		if (!isSheetKind(item.sentType!))
			throw new Problem('invalid', 'This file has no sheet to draw on. Send a file with your marks.');
		await tx
			.insert(verdictMark)
			.values(
				drawn.map((mark) => ({
					...{ passId, documentId: document, id: mark.id, drawn: mark, points: mark.points.length },
					...{ drawnBy: held.holderName, createdAt: now }
				}))
			)
			.onConflictDoUpdate({
				target: [verdictMark.passId, verdictMark.documentId, verdictMark.id],
				// Who drew it first stays its author, whoever of them moves it.
				set: { drawn: sql`excluded.drawn`, points: sql`excluded.points` }
			});
		const [all] = await tx
			.select({ marks: count(), points: sum(verdictMark.points).mapWith(Number) })
			.from(verdictMark)
			.where(its);
		if (all!.marks > MOST_DRAWN || all!.points > MOST_DRAWN_POINTS)
			throw new Problem(
				'too-many',
				`A document takes ${MOST_DRAWN} marks with ${MOST_DRAWN_POINTS.toLocaleString('en')} points at most. Send a file with your marks.`
			);
		return {};
	}
});
