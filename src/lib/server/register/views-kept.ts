import { and, eq, or, sql } from 'drizzle-orm';
import * as templates from '../../contract/deliverables';
import * as contract from '../../contract/register';
import { registerChoice, registerTemplate } from '../platform/db/schema';
import { answers } from '../platform/runner/act';

export const registerColumns = answers(contract.registerColumns, {
	run: async ({ project }) => ({ columns: project.settings.registerColumns ?? {} })
});

export const registerChoices = answers(contract.registerChoices, {
	async run({ db, project, person: me }) {
		const choices = await db
			.select({
				id: registerChoice.id,
				name: registerChoice.name,
				query: registerChoice.query,
				shared: registerChoice.shared
			})
			.from(registerChoice)
			.where(
				and(
					eq(registerChoice.projectId, project.id),
					or(registerChoice.shared, eq(registerChoice.personId, me.id))
				)
			)
			.orderBy(registerChoice.name);
		return { choices };
	}
});

export const registerTemplates = answers(templates.registerTemplates, {
	async run({ db, project }) {
		const found = await db
			.select({
				id: registerTemplate.id,
				name: registerTemplate.name,
				deliverables: sql<number>`jsonb_array_length(${registerTemplate.lines})`
			})
			.from(registerTemplate)
			.where(eq(registerTemplate.projectId, project.id))
			.orderBy(registerTemplate.name);
		return { templates: found };
	}
});
