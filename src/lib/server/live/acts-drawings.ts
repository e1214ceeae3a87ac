import { and, eq } from 'drizzle-orm';
import * as Y from 'yjs';
import * as contract from '../../contract/live';
import { allows } from '../../core/access/levels';
import { keyOf, likelyOwner, ownersOf, readBase, writeBase } from '../../core/drawing/shared';
import { Problem } from '../../core/acts/problem';
import { content, department, version } from '../platform/db/schema';
import { does } from '../platform/runner/act';
import { beginOnFile, heldLive, stateOf, type LiveState } from './acts';

export const workDrawingLive = does(contract.workDrawingLive, {
	async prepare({ tx, services, project }, input): Promise<LiveState> {
		const [base] = await tx
			.select({ hash: version.hash, mediaType: content.mediaType })
			.from(version)
			.innerJoin(content, eq(content.hash, version.hash))
			.where(and(eq(version.documentId, input.document), eq(version.label, input.base)));
		if (!base) throw new Problem('not-found', `There is no version ${input.base}.`);
		if (base.mediaType !== 'image/vnd.dxf')
			throw new Problem('invalid', 'Only DXF drawings can be edited together; this is another kind of file.');
		const layers = await services.inspector.layers(base.hash).catch(() => {
			throw new Problem('invalid', 'This drawing is damaged or too large to be edited here.');
		});
		const departments = await tx
			.select({ id: department.id, code: department.code })
			.from(department)
			.where(eq(department.projectId, project.id));
		const doc = new Y.Doc({ gc: false });
		writeBase(doc, { hash: base.hash, label: input.base, ...layers });
		for (const layer of layers.names) {
			const code = likelyOwner(
				layer,
				departments.map((d) => d.code)
			);
			const owner = departments.find((d) => d.code === code);
			if (owner) ownersOf(doc).set(keyOf(layer), owner.id);
		}
		return stateOf(doc);
	},
	async run(context, input) {
		await beginOnFile(context, 'drawing', input, context.prepared as LiveState);
		return {};
	}
});

export const giveLayer = does(contract.giveLayer, {
	async run(context, input) {
		const { tx, services, project, reach, level, person: by, tell } = context;
		const { held, room } = await heldLive(context);
		const departments = await tx
			.select({ id: department.id, code: department.code, name: department.name })
			.from(department)
			.where(eq(department.projectId, project.id));
		const to = departments.find((d) => d.id === input.department);
		if (input.department && !to) throw new Problem('invalid', 'There is no such department.');
		const key = keyOf(input.layer);
		const { names, from } = await services.rooms.read(room, (doc) => ({
			names: readBase(doc).names,
			from: ownersOf(doc).get(key) ?? null
		}));
		const layer = names.find((name) => keyOf(name) === key);
		if (!layer) throw new Problem('not-found', `There is no layer ${input.layer} in this drawing.`);
		const leads = from === null ? reach.subject.leads.length > 0 : reach.subject.leads.includes(from);
		if (!leads && !allows(level, 'manage'))
			throw new Problem(
				'needs-level',
				from === null
					? 'Leads of a department, and whoever has Manage here, give layers to departments.'
					: `The leads of ${departments.find((d) => d.id === from)?.name ?? 'its department'} hand this layer over.`
			);
		await services.rooms.change(room, by.id, (doc) => {
			if (to) ownersOf(doc).set(key, to.id);
			else ownersOf(doc).delete(key);
		});
		tell({
			kind: 'live.layer-given',
			placeId: input.document,
			documentId: input.document,
			details: {
				number: held.row.number,
				layer,
				from: departments.find((d) => d.id === from)?.code ?? 'everybody',
				to: to?.code ?? 'everybody'
			}
		});
		return {};
	}
});
