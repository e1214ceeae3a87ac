import type { z } from 'zod';
import * as contract from '../../contract/register';
import { narrowingText, STATUS_LABEL } from '../../core/register';
import { dayOf } from '../../core/time/days';
import { MEDIA_TYPE } from '../../core/files/media';
import type { RegisterListTask } from '../formats/register-list/task';
import { people } from '../people/views';
import { projectFrame } from '../places/views';
import { madeResponse } from '../platform/http/respond';
import type { Actor } from '../platform/runner/actor';
import { readView } from '../platform/runner/run';
import type { Services } from '../platform/services';
import { narrowingOf } from './seen';
import { register } from './views';
import { registerFigures } from './views-figures';

type Asked = z.input<typeof contract.register.input>;
/** So many lines are asked for at a time. */
const AT_ONCE = 1_000;

/** The register as a file, as far as whoever asks may look at it; with the name that it is given. */
export async function registerFile(
	services: Services,
	actor: Actor,
	format: RegisterListTask['format'],
	asked: Asked
): Promise<{ name: string; bytes: Uint8Array; deliverables: number }> {
	const { project } = await readView(services, projectFrame, actor, { project: asked.project });
	const { members } = await readView(services, people, actor, { project: asked.project });
	const mailOf = new Map(members.map((one) => [one.id, one.email]));
	/** By whose mail address an import finds them again; of who left only the name is given. */
	const withMail = (who: { id: string; name: string } | null) => {
		const mail = who && mailOf.get(who.id);
		return mail ? `${who.name} <${mail}>` : (who?.name ?? '');
	};
	const lines: RegisterListTask['lines'] = [];
	let stages: RegisterListTask['stages'] = [];
	for (;;) {
		const page = await readView(services, register, actor, {
			...asked,
			group: 'none',
			skip: lines.length,
			limit: AT_ONCE
		});
		stages = page.stages.map(({ key, name }) => ({ key, name }));
		lines.push(
			...page.rows.map((row) => ({
				number: row.number,
				title: row.title,
				department: row.department ?? '',
				responsible: withMail(row.responsible),
				weight: row.weight,
				stages: Object.fromEntries(
					row.stages.map(({ stage, planned, actual, forecast }) => [stage, { planned, actual, forecast }])
				),
				slip: row.slip,
				status: STATUS_LABEL[row.status],
				revision: row.document?.label ?? ''
			}))
		);
		if (page.rows.length < AT_ONCE) break;
	}
	const { order: _order, down: _down, ...narrowed } = asked;
	const { curves } = await readView(services, registerFigures, actor, narrowed);
	const today = dayOf(new Date(), project.timeZone);
	const bytes = await services.inspector.write({
		task: 'register-list',
		format,
		about: {
			project: project.name,
			today,
			narrowed: narrowingText(narrowingOf(contract.register.input.parse(asked)), { stages, people: members })
		},
		stages,
		lines,
		curves
	});
	return { name: `${project.code} register ${today}.${format}`, bytes, deliverables: lines.length };
}

/** The register as a download. */
export async function registerListResponse(
	services: Services,
	actor: Actor,
	format: RegisterListTask['format'],
	asked: Asked
): Promise<Response> {
	const { name, bytes } = await registerFile(services, actor, format, asked);
	return madeResponse(bytes, MEDIA_TYPE[format], name);
}
