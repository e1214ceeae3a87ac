import { and, count, eq } from 'drizzle-orm';
import * as contract from '../../contract/register';
import { Problem } from '../../core/acts/problem';
import { nameKey } from '../../core/files/names';
import { registerChoice } from '../platform/db/schema';
import { does } from '../platform/runner/act';

/** Most choices that one person, or the project, keeps. */
const MOST = 60;

export const keepRegisterChoice = does(contract.keepRegisterChoice, {
	async run({ tx, project, reach, person: by, now, newId, tell }, input) {
		if (input.shared && !reach.subject.controller)
			throw new Problem(
				'needs-level',
				'Choices for the project are kept by document controllers. Keep it for yourself.'
			);
		const theirs = and(
			eq(registerChoice.projectId, project.id),
			eq(registerChoice.shared, input.shared),
			input.shared ? undefined : eq(registerChoice.personId, by.id)
		);
		const key = nameKey(input.name);
		const [there] = await tx
			.select()
			.from(registerChoice)
			.where(and(theirs, eq(registerChoice.nameKey, key)))
			.for('update');
		const id = there?.id ?? newId();
		if (there)
			await tx
				.update(registerChoice)
				.set({ name: input.name, query: input.query })
				.where(eq(registerChoice.id, id));
		else {
			const [many] = await tx.select({ n: count() }).from(registerChoice).where(theirs);
			if (many!.n >= MOST)
				throw new Problem('conflict', `At most ${MOST} choices are kept. End one of them first.`);
			await tx.insert(registerChoice).values({
				id,
				projectId: project.id,
				personId: by.id,
				shared: input.shared,
				name: input.name,
				nameKey: key,
				query: input.query,
				createdAt: now
			});
		}
		if (input.shared) tell({ kind: 'register.choice-kept', details: { name: input.name } });
		return { id };
	}
});

export const endRegisterChoice = does(contract.endRegisterChoice, {
	async run({ tx, project, reach, person: by, tell }, input) {
		const [there] = await tx
			.select()
			.from(registerChoice)
			.where(and(eq(registerChoice.projectId, project.id), eq(registerChoice.id, input.choice)))
			.for('update');
		if (!there || (!there.shared && there.personId !== by.id))
			throw new Problem('not-found', 'There is no such choice.');
		if (there.shared && !reach.subject.controller)
			throw new Problem('needs-level', 'Choices of the project are ended by document controllers.');
		await tx.delete(registerChoice).where(eq(registerChoice.id, there.id));
		if (there.shared) tell({ kind: 'register.choice-ended', details: { name: there.name } });
		return {};
	}
});
