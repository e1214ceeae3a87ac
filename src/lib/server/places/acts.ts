import { and, eq, inArray, isNull, sql } from 'drizzle-orm';
import * as contract from '../../contract/places';
import { allows, LEVELS } from '../../core/access/levels';
import { nameKey } from '../../core/files/names';
import { Problem } from '../../core/acts/problem';
import { ended } from '../../core/words/sentences';
import { beneath } from '../access/reach';
import { department, grant, place } from '../platform/db/schema';
import { ID_LENGTH } from '../../core/acts/ids';
import { holdTree } from '../access/scopes';
import { does, type Acting, type ContextOf } from '../platform/runner/act';
import { holdStill } from '../documents/acts';
import { visiblePlaces } from '../platform/runner/locate';
import { checkOntoDesk } from './desks';

/** Deepest nesting of folders; the path column and the eye both end somewhere. */
const MOST_DEPTH = 30;

export const makeShelf = does(contract.makeShelf, {
	async run({ tx, project, person: by, now, newId, tell }, input) {
		const named = [...(input.department ? [input.department] : []), ...input.also.map((a) => a.department)];
		if (new Set(named).size !== named.length) throw new Problem('invalid', 'A department is named twice.');
		const known = named.length
			? await tx
					.select({ id: department.id })
					.from(department)
					.where(and(eq(department.projectId, project.id), inArray(department.id, named)))
			: [];
		if (known.length !== named.length)
			throw new Problem('invalid', 'A department named is not in this project.');
		const shelf = newId();
		await tx.insert(place).values({
			id: shelf,
			projectId: project.id,
			path: shelf,
			kind: 'shelf',
			name: input.name,
			nameKey: nameKey(input.name),
			scope: shelf,
			departmentId: input.department,
			createdBy: by.id,
			createdAt: now
		});
		const entry = (
			subjectKind: 'department' | 'leads',
			subjectId: string,
			level: (typeof LEVELS)[number]
		) => ({
			id: newId(),
			placeId: shelf,
			subjectKind,
			subjectId,
			level,
			grantedBy: by.id,
			createdAt: now
		});
		const entries = [
			...(input.department
				? [entry('department', input.department, 'work'), entry('leads', input.department, 'manage')]
				: []),
			...input.also.map((a) => entry('department', a.department, a.level))
		];
		if (entries.length) await tx.insert(grant).values(entries);
		tell({ kind: 'shelf.made', placeId: shelf, details: { name: input.name, also: input.also } });
		return { id: shelf };
	}
});

export const makeFolder = does(contract.makeFolder, {
	async run(context, input) {
		return { id: await addFolder(context, context.place.id, input.name) };
	}
});

export const makeFolders = does(contract.makeFolders, {
	async run(context, input) {
		const { tx, reach, place: top } = context;
		const ids = new Map<string, string>();
		let made = 0;
		const at = async (way: readonly string[]): Promise<string> => {
			if (!way.length) return top.id;
			const key = way.map(nameKey).join('/');
			const known = ids.get(key);
			if (known) return known;
			const within = await at(way.slice(0, -1));
			const name = way.at(-1)!;
			const [there] = await tx
				.select({ id: place.id })
				.from(place)
				.where(
					and(
						eq(place.parentId, within),
						eq(place.kind, 'folder'),
						eq(place.nameKey, nameKey(name)),
						isNull(place.removalId)
					)
				);
			let id = there?.id;
			if (there) {
				// Into what is there already only goes who may work there; of what is hidden, no more is told than its name.
				const [seen] = await visiblePlaces(tx, reach, [there.id]);
				if (!seen) throw new Problem('conflict', `“${name}” is taken here. Choose another name.`);
				if (!allows(reach.held(seen, seen), 'work'))
					throw new Problem('needs-level', `Making folders in “${name}” needs Work there.`, {
						needed: 'work'
					});
			} else {
				id = await addFolder(context, within, name);
				made++;
			}
			ids.set(key, id!);
			return id!;
		};
		const folders: string[] = [];
		for (const way of input.ways) folders.push(await at(way));
		return { made, folders };
	}
});

/** Makes a folder and tells it; gives its id. Raises `invalid` where folders nest too deep. */
export async function addFolder(
	{ tx, project, person: by, now, newId, tell }: ContextOf['project'] & Acting,
	within: string,
	name: string
): Promise<string> {
	const parent = await holdStill(tx, within);
	if (parent.path.length / ID_LENGTH >= MOST_DEPTH)
		throw new Problem('invalid', `Folders nest ${MOST_DEPTH} deep at most.`);
	const folder = newId();
	await tx.insert(place).values({
		id: folder,
		projectId: project.id,
		parentId: parent.id,
		path: parent.path + folder,
		kind: 'folder',
		name,
		nameKey: nameKey(name),
		scope: parent.scope,
		createdBy: by.id,
		createdAt: now
	});
	tell({
		kind: 'folder.made',
		placeId: folder,
		details: { name, in: parent.name, inId: parent.id }
	});
	return folder;
}

export const renameFolder = does(contract.renameFolder, {
	async run({ tx, place: folder, tell }, input) {
		if (input.name === folder.name) return {};
		await tx
			.update(place)
			.set({ name: input.name, nameKey: nameKey(input.name) })
			.where(eq(place.id, folder.id));
		tell({ kind: 'folder.renamed', placeId: folder.id, details: { from: folder.name, to: input.name } });
		return {};
	}
});

export const moveFolder = does(contract.moveFolder, {
	async run(context, input) {
		await moveWhole(context, input.folder, input.to);
		return { from: context.place.parentId };
	}
});

/**
 * Moves a folder with everything in it, and tells it. Raises `not-found`, `needs-level` or `frozen` for where it goes,
 * `conflict` when that lies within it.
 */
export async function moveWhole(
	{ tx, project, reach, person: by, tell }: ContextOf['project'] & Acting,
	folderId: string,
	to: string
): Promise<void> {
	await holdTree(tx, project.id);
	const [folder] = await tx.select().from(place).where(eq(place.id, folderId)).for('update');
	const [target] = await visiblePlaces(tx, reach, [to]);
	if (!target || target.kind === 'document' || target.projectId !== project.id)
		throw new Problem('not-found', 'The folder to move to is not there.');
	if (!allows(reach.held(target, target), 'work')) {
		const frozen = allows(reach.level(target.scope), 'work') && reach.freezeAt(target.path);
		throw frozen
			? new Problem(
					'frozen',
					`${target.name} is frozen by ${frozen.by}: ${ended(frozen.reason)} Nothing was moved.`
				)
			: new Problem('needs-level', `Moving to ${target.name} needs Work there.`, { needed: 'work' });
	}
	await checkOntoDesk({ tx, reach, person: by }, [folder!], target);
	if (target.path.startsWith(folder!.path)) throw new Problem('conflict', 'A folder cannot go into itself.');
	const [deepest] = await tx
		.select({ length: sql<number>`max(length(path))` })
		.from(place)
		.where(and(eq(place.projectId, project.id), beneath(folder!.path)));
	const depth = (target.path.length + deepest!.length - folder!.path.length + ID_LENGTH) / ID_LENGTH;
	if (depth > MOST_DEPTH + 1) throw new Problem('invalid', `Folders nest ${MOST_DEPTH} deep at most.`);
	await tx.update(place).set({ parentId: target.id }).where(eq(place.id, folder!.id));
	// What inherited its scope from above the folder now inherits the target's; scopes inside go along.
	await tx.execute(sql`
			update place p set
				path = ${target.path + folder!.id} || substr(p.path, ${folder!.path.length + 1}),
				scope = case when exists (
					select 1 from place s where s.id = p.scope and s.path collate "C" like ${folder!.path + '%'}
				) then p.scope else ${target.scope} end
			where p.project_id = ${project.id} and p.path collate "C" like ${folder!.path + '%'}`);
	tell({
		kind: 'folder.moved',
		placeId: folder!.id,
		details: { name: folder!.name, to: target.name, toId: target.id, from: folder!.parentId }
	});
}
