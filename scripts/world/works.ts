import { label as writeLabel, DEFAULT_SCHEME, nextSave, parse } from '../../src/lib/core/revisions/revisions';
import { addDocument } from '../../src/lib/server/documents/acts';
import { handIn } from '../../src/lib/server/documents/acts-hand-in';
import { takeLock } from '../../src/lib/server/locks/acts';
import { DEPARTMENTS, LOCK_PURPOSES, NOTES, type Run } from './catalogue';
import type { Asked } from './files';
import { HOUR, type Doc, type Stage } from './stage';

/** Words of titles that say nothing of what a document is about. */
const FORMAL =
	/^(plan|schedule|report|test|site|layout|details?|calculation|design|list|part|record|review)$/;
/** The beginnings of the words of a title that say what it is about. */
const aboutOf = (title: string) =>
	new Set(
		(title.toLowerCase().match(/[a-z]{4,}/g) ?? [])
			.filter((word) => !FORMAL.test(word))
			.map((word) => word.slice(0, 5))
	);

/**
 * Numbers of documents that one names: the next sheets of its folder, or for a text those that are about the same, of its
 * own zone first, one of them at the revision that it was read at.
 */
function besides(stage: Stage, doc: Doc): string[] {
	const drawings = stage.docs.filter((one) => one.run.type === 'DR' && one !== doc);
	if (doc.run.type === 'DR') {
		const there = drawings.filter((one) => one.folder === doc.folder);
		const at = there.findIndex((one) => one.number > doc.number);
		return [...there.slice(Math.max(0, at)), ...there].slice(0, 2).map((one) => one.number);
	}
	const about = aboutOf(doc.title);
	const zone = (one: Doc) => one.number.split('-')[2];
	const alike = (one: Doc) => zone(one) === zone(doc) && zone(doc) !== 'ZZ';
	const shared = (one: Doc) => [...aboutOf(one.title)].filter((word) => about.has(word)).length;
	const near = (one: Doc) =>
		4 * shared(one) + (alike(one) ? 2 : 0) + (one.department === doc.department ? 1 : 0);
	return drawings
		.filter((one) => shared(one) > 0 || alike(one))
		.sort((a, b) => near(b) - near(a) || a.number.localeCompare(b.number))
		.slice(0, 3)
		.map((one, i) => (i === 0 ? `${one.number} P01` : one.number));
}

/** Forms of files that name no other documents. */
const NAMES_NONE: readonly Run['form'][] = ['jpeg', 'xlsx', 'csv'];
/** Which documents there are stands from the beginning, and so what each of them names. */
const named = new WeakMap<Doc, string[]>();
function namedBy(stage: Stage, doc: Doc): string[] {
	const numbers = named.get(doc) ?? besides(stage, doc);
	named.set(doc, numbers);
	return numbers;
}

/** What the file of a document at a version is made from, as it stands at a moment of the clock. */
function askedFor(stage: Stage, doc: Doc, edit: number, clock: number): Asked {
	const { run, number, title } = doc;
	return {
		form: run.form,
		kind: run.kind ?? null,
		type: run.type,
		number,
		title,
		department: DEPARTMENTS.find((d) => d.code === doc.department)!.name,
		revision: nextLabel(doc),
		edit,
		// To the hour: what was made ahead then fits, though other steps came between.
		when: Math.floor(clock / HOUR) * HOUR,
		see: NAMES_NONE.includes(run.form) ? [] : namedBy(stage, doc)
	};
}

/** Has the next file of a document made by the time at which a step wants it. */
export const makeAhead = (stage: Stage, doc: Doc, at: number): void =>
	stage.files.expect(askedFor(stage, doc, doc.edits + 1, Math.max(stage.clock, Math.min(at, stage.end))));

function nextLabel(doc: Doc): string {
	return writeLabel(
		DEFAULT_SCHEME,
		nextSave(DEFAULT_SCHEME, doc.label ? parse(DEFAULT_SCHEME, doc.label) : null)
	);
}

export async function add(stage: Stage, doc: Doc): Promise<void> {
	const who = stage.someoneFor(doc);
	doc.edits = 1;
	const upload = await stage.sendKept(who, await stage.files.file(askedFor(stage, doc, 1, stage.clock)));
	const { id, label } = await stage.act(who, addDocument, {
		folder: doc.folder,
		upload,
		number: doc.number,
		title: doc.title,
		note: 'First issue to the project'
	});
	doc.id = id;
	doc.label = label;
}

export async function revise(
	stage: Stage,
	doc: Doc,
	{ who, note, keep = false, purpose }: { who?: string; note?: string; keep?: boolean; purpose?: string } = {}
): Promise<void> {
	if (!doc.id || doc.removed) return;
	const by = doc.lockedBy ?? who ?? stage.someoneFor(doc);
	if (stage.onlyIn.get(doc.folder)?.includes(by) === false) return;
	const taking = doc.lockedBy
		? null
		: stage.act(by, takeLock, { document: doc.id, purpose: purpose ?? stage.random.pick(LOCK_PURPOSES) });
	doc.lockedBy = by;
	doc.edits++;
	// The file comes to the store while the lock is taken; handing in waits for both.
	const sending = stage.files
		.file(askedFor(stage, doc, doc.edits, stage.clock))
		.then((file) => stage.sendKept(by, file));
	const [upload] = await Promise.all([sending, taking]);
	const kind = ['dxf', 'sheet'].includes(doc.run.form)
		? 'drawing'
		: ['xlsx', 'csv'].includes(doc.run.form)
			? 'schedule'
			: doc.run.form === 'jpeg'
				? 'photo'
				: 'text';
	const made = await stage.act(by, handIn, {
		document: doc.id,
		upload,
		note: note ?? NOTES[kind]![(doc.edits - 2) % NOTES[kind]!.length]!,
		keepLock: keep,
		base: doc.label
	});
	if (made.kept !== 'on-the-line') throw new Error(`${doc.number} was not stored on the line.`);
	doc.label = made.label;
	if (!keep) doc.lockedBy = null;
}

/** Takes a document in hand for a revision to come, when it is free. */
export async function take(stage: Stage, doc: Doc): Promise<void> {
	if (!doc.id || doc.removed || doc.lockedBy) return;
	const by = stage.someoneFor(doc);
	await stage.act(by, takeLock, { document: doc.id, purpose: stage.random.pick(LOCK_PURPOSES) });
	doc.lockedBy = by;
}
