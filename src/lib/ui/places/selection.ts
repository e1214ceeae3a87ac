import { toast } from '../kit/toast';
import { addressOf, cupboard } from '../../client/cupboard';
import { attempt, sentenceOf } from '../platform/api';
import { eachOf, refusedText, type Outcome } from '../platform/each';
import { plural } from '../platform/words';
import { sayRestored } from './restore';

/** Documents and folders that something is done with together. */
export interface Chosen {
	documents: string[];
	folders: string[];
}

const inWords = ({ documents, folders }: Chosen) =>
	[
		...(documents.length ? [plural(documents.length, 'document')] : []),
		...(folders.length ? [plural(folders.length, 'folder')] : [])
	].join(' and ');

/** Says what was done, with a way to take it back. */
function done(sentence: string, takeBack: () => Promise<void>): void {
	toast.success(sentence, { takeBack: () => void attempt(takeBack) });
}

/** As many as an act takes at once: all of them, or none. */
export const AT_ONCE = 1_000;
const inParts = (ids: string[]) =>
	Array.from({ length: Math.ceil(ids.length / AT_ONCE) }, (_, i) =>
		ids.slice(i * AT_ONCE, (i + 1) * AT_ONCE)
	);
/** Documents and folders in lots that an act takes at once, folders first. */
const lotsOf = ({ documents, folders }: Chosen): Chosen[] =>
	inParts([...folders, ...documents]).map((lot, i) => {
		const [from, left] = [i * AT_ONCE, Math.max(0, folders.length - i * AT_ONCE)];
		return { documents: lot.slice(left), folders: folders.slice(from, from + AT_ONCE) };
	});

/**
 * Has an act done with many, lot by lot. When the first is refused nothing was done, and the refusal is raised; when a
 * later one is, what was done stays and can be taken back, and it is said how many others are as they were.
 * @returns the answers, and with what it was done
 */
async function inLots<Answer>(
	chosen: Chosen,
	act: (lot: Chosen) => Promise<Answer>
): Promise<{ answers: Answer[]; did: Chosen }> {
	const answers: Answer[] = [];
	const did: Chosen = { documents: [], folders: [] };
	for (const lot of lotsOf(chosen)) {
		try {
			answers.push(await act(lot));
		} catch (error) {
			if (!answers.length) throw error;
			const left = {
				documents: chosen.documents.slice(did.documents.length),
				folders: chosen.folders.slice(did.folders.length)
			};
			toast.error(`${inWords(left)} left as they were: ${sentenceOf(error)}`, { stays: true });
			break;
		}
		did.documents.push(...lot.documents);
		did.folders.push(...lot.folders);
	}
	return { answers, did };
}

/** Says that all is as it was before, or what could not be brought back. */
function sayBack(outcome: Outcome, what: string): void {
	const refused = refusedText(outcome, what);
	if (refused) toast.error(refused, { stays: true });
	else toast.success('All is as it was.');
}

/** Moves documents and folders, and offers to take it back. */
export async function moveMany(
	project: string,
	chosen: Chosen,
	to: { id: string; name: string },
	then: () => unknown
): Promise<void> {
	const { answers, did } = await inLots(chosen, (lot) =>
		cupboard.organiseDocuments({ project, ...lot, to: to.id })
	);
	const documents = answers.flatMap((before) => before.documents);
	const folders = answers.flatMap((before) => before.folders);
	done(`${inWords(did)} moved to ${to.name}.`, async () => {
		const homes = new Set([...documents, ...folders].flatMap((b) => b.from ?? []));
		const back = (list: { id: string; from: string | null }[], home: string) =>
			list.filter((b) => b.from === home).map((b) => b.id);
		const groups = [...homes].flatMap((home) =>
			lotsOf({ documents: back(documents, home), folders: back(folders, home) }).map((lot) => ({
				project,
				...lot,
				to: home
			}))
		);
		const outcome = await eachOf(groups, (group) => cupboard.organiseDocuments(group));
		// All from one folder go back together, so that what is counted is folders.
		sayBack(outcome, 'brought back to their folders');
		await then();
	});
	await then();
}

/** Gives documents tags and takes tags from them, also all in folders, and offers to take it back. */
export async function tagMany(
	project: string,
	chosen: Chosen,
	change: { tag: string[]; untag: string[] },
	then: () => unknown
): Promise<void> {
	const { answers } = await inLots(chosen, (lot) =>
		cupboard.organiseDocuments({ project, ...lot, ...change })
	);
	const documents = answers.flatMap((before) => before.documents);
	done(`${plural(documents.length, 'document')} tagged.`, async () => {
		// Those that were changed alike are changed back together, so that what is counted is such groups.
		const alike = new Map<string, { tag: string[]; untag: string[]; documents: string[] }>();
		for (const { id, tags } of documents) {
			const tag = change.untag.filter((one) => tags.includes(one) && !change.tag.includes(one));
			const untag = change.tag.filter((one) => !tags.includes(one));
			const key = JSON.stringify([tag, untag]);
			if (!alike.has(key)) alike.set(key, { tag, untag, documents: [] });
			if (tag.length || untag.length) alike.get(key)!.documents.push(id);
		}
		const groups = [...alike.values()].flatMap((group) =>
			inParts(group.documents).map((documents) => ({ project, ...group, documents }))
		);
		sayBack(await eachOf(groups, (group) => cupboard.organiseDocuments(group)), 'given their tags again');
		await then();
	});
	await then();
}

/** Copies documents and folders into a folder, and offers to take the copies away again. */
export async function copyMany(
	project: string,
	chosen: Chosen,
	to: string,
	then: () => unknown
): Promise<void> {
	const { answers } = await inLots(chosen, (lot) => cupboard.copyDocuments({ project, ...lot, to }));
	const copies = answers.flatMap((made) => made.documents);
	const numbers = copies.map((copy) => copy.number);
	done(
		`Copied as ${numbers.slice(0, 3).join(', ')}${numbers.length > 3 ? ` and ${numbers.length - 3} more` : ''}.`,
		async () => {
			const places = [...answers.flatMap((made) => made.folders), ...copies.map((copy) => copy.id)];
			const outcome = await eachOf(inParts(places), (places) =>
				cupboard.removePlaces({ project, places, reason: 'Copied by mistake' })
			);
			const refused = refusedText(outcome, 'taken away again');
			if (refused) toast.error(refused, { stays: true });
			await then();
		}
	);
	await then();
}

/** Removes documents and folders, and offers to take it back. */
export async function removeMany(
	project: string,
	chosen: Chosen,
	reason: string,
	then: () => unknown
): Promise<void> {
	const { answers, did } = await inLots(chosen, ({ documents, folders }) =>
		cupboard.removePlaces({ project, places: [...documents, ...folders], reason })
	);
	done(`${inWords(did)} removed.`, async () => {
		for (const places of inParts(answers.flatMap((answer) => answer.removed)))
			sayRestored(await cupboard.restorePlaces({ project, places }));
		await then();
	});
	await then();
}

/**
 * Has the newest versions of documents, and of all in folders, sent as one zip. A form, so that the browser streams it to
 * the disk; into a frame that nobody sees, so that a refusal does not take the page away but is said on it.
 */
export function downloadZip(project: string, chosen: Chosen): void {
	const frame = document.createElement('iframe');
	frame.name = 'cupboard-zip';
	frame.hidden = true;
	// A download never loads into the frame; what loads is why there is none.
	frame.onload = () => {
		const said = frame.contentDocument?.body.textContent ?? '';
		if (!said) return;
		try {
			toast.error((JSON.parse(said) as { detail: string }).detail);
		} catch {
			toast.error('The zip could not be made. Try again.');
		}
		frame.remove();
	};
	document.getElementsByName(frame.name)[0]?.remove();
	document.body.append(frame);
	const form = document.createElement('form');
	form.method = 'post';
	form.action = addressOf('zip', { project });
	form.target = frame.name;
	for (const [name, ids] of Object.entries(chosen) as [string, string[]][]) {
		const field = document.createElement('input');
		field.type = 'hidden';
		field.name = name;
		field.value = ids.join(',');
		form.append(field);
	}
	document.body.append(form);
	form.submit();
	form.remove();
}
