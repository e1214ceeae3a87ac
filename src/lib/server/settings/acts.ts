import { isDeepStrictEqual } from 'node:util';
import { eq, sql } from 'drizzle-orm';
import * as contract from '../../contract/settings';
import { checkRecipients } from '../releases/recipients';
import { checkRouteHere } from '../releases/route';
import { Problem } from '../../core/acts/problem';
import { checkRule, examplesOf, expressionOf, misfits, settled } from '../../core/numbering/rule';
import { checkStages } from '../../core/register/stages';
import { project, type ProjectSettings } from '../platform/db/schema';
import { memberIn } from '../people/acts-membership';
import { does } from '../platform/runner/act';
import { effectsOf } from './effects';

export const changeNumbering = does(contract.changeNumbering, {
	async run({ tx, project: here, tell }, input) {
		const rule = settled(input.rule);
		const fault = checkRule(rule);
		if (fault) throw new Problem('invalid', fault, { field: 'rule' });
		// Who only tries, letter by letter, keeps nobody waiting.
		const known = tx.select().from(project).where(eq(project.id, here.id));
		const [fresh] = await (input.trial ? known : known.for('update'));
		const expression = expressionOf(rule);
		const [counted] = await tx.execute<{ numbers: number; misfits: number }>(sql`
			select count(*)::int as numbers, (count(*) filter (where number !~ ${expression}))::int as misfits
			from document where project_id = ${here.id} and live`);
		const odd = await tx.execute<{ number: string }>(sql`
			select number from document where project_id = ${here.id} and live and number !~ ${expression}
			order by number limit ${contract.MISFITS_NAMED}`);
		const before = fresh!.settings.numbering;
		if (!input.trial && !isDeepStrictEqual(before, rule)) {
			await tx
				.update(project)
				.set({ settings: { ...fresh!.settings, numbering: rule } })
				.where(eq(project.id, here.id));
			const [was, is] = [before, rule].map((one) => examplesOf(one, 1)[0]!.number);
			tell({
				kind: 'project.numbering-changed',
				details: { before: was!, after: is!, was: before, rule }
			});
		}
		return {
			numbers: counted!.numbers,
			misfits: counted!.misfits,
			named: misfits(
				rule,
				odd.map((row) => row.number)
			)
		};
	}
});

export const changeSettings = does(contract.changeSettings, {
	async run(context, input) {
		const { tx, project: here, person: by, now, tell } = context;
		if (input.manageNeedsTwoStep && !(await memberIn(context, by.id)).twoStep)
			throw new Problem(
				'conflict',
				'Set up two-step sign-in for yourself first, on your own page; otherwise you would lock yourself out.'
			);
		const odd = input.stages && checkStages(input.stages);
		if (odd) throw new Problem('invalid', odd, { field: 'stages' });
		for (const one of input.routes ?? []) await checkRouteHere(tx, here, one.steps, new Set());
		const names = input.routes?.map((one) => one.name.toLowerCase()) ?? [];
		if (new Set(names).size < names.length)
			throw new Problem('invalid', 'Two routes have the same name.', { field: 'routes' });
		if (input.distribution)
			await checkRecipients(
				tx,
				here.id,
				input.distribution.map((one) => one.recipient),
				'distribution'
			);
		// Who only tries keeps nobody waiting.
		const known = tx.select().from(project).where(eq(project.id, here.id));
		const [fresh] = await (input.trial ? known : known.for('update'));
		const before = fresh!.settings;
		// What is not named stays as it is.
		const { project: _project, trial: _trial, stamps, ...named } = input;
		const wanted = { ...named, ...(stamps ? { stamps: [...new Set(stamps)] } : {}) };
		const changed = Object.fromEntries(
			Object.entries(wanted).filter(
				([key, value]) =>
					value !== undefined && !isDeepStrictEqual(value, before[key as keyof ProjectSettings])
			)
		) as Partial<ProjectSettings>;
		if (!Object.keys(changed).length) return { effects: [] };
		const effects = await effectsOf(tx, fresh!, changed, now);
		if (input.trial) return { effects };
		await tx
			.update(project)
			.set({ settings: { ...before, ...changed } })
			.where(eq(project.id, here.id));
		const was = Object.fromEntries(
			Object.keys(changed).map((key) => [key, before[key as keyof ProjectSettings] ?? null])
		);
		tell({ kind: 'project.settings-changed', details: { ...changed, before: was } });
		return { effects };
	}
});
