import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';

const { asked, answers, toasts } = vi.hoisted(() => ({
	asked: [] as [string, Record<string, unknown>][],
	answers: {} as Record<string, unknown>,
	toasts: [] as { sentence: string; takeBack?: () => unknown }[]
}));
vi.mock('../../client/cupboard', () => ({
	addressOf: () => '/zip',
	cupboard: new Proxy({} as Record<string, unknown>, {
		get: (_, name: string) => (input: Record<string, unknown>) => {
			asked.push([name, input]);
			const made = answers[name];
			const answer = typeof made === 'function' ? (made as (given: unknown) => unknown)(input) : made;
			return answer instanceof Error ? Promise.reject(answer) : Promise.resolve(answer);
		}
	})
}));
vi.mock('../kit/toast', () => {
	const say = (sentence: string, more: { takeBack?: () => unknown } = {}) =>
		void toasts.push({ sentence, ...more });
	return { toast: Object.assign(say, { success: say, error: say }) };
});
const { copyMany, moveMany, removeMany, tagMany } = await import('./selection');

const then = vi.fn();
beforeEach(() => {
	then.mockReset();
});
afterEach(() => {
	asked.length = toasts.length = 0;
	for (const name of Object.keys(answers)) delete answers[name];
});
const chosen = { documents: ['d1', 'd2'], folders: ['f1'] };
const takeBack = () => toasts[0]!.takeBack!();

describe('what is done with many at once, and taken back', () => {
	it('moves them, and brings each back to the folder it came from', async () => {
		answers.organiseDocuments = {
			documents: [
				{ id: 'd1', from: 'pit', tags: [] },
				{ id: 'd2', from: 'deck', tags: [] }
			],
			folders: [{ id: 'f1', from: 'pit' }]
		};
		await moveMany('p', chosen, { id: 'quay', name: 'Quay wall' }, then);
		expect(asked).toEqual([['organiseDocuments', { project: 'p', ...chosen, to: 'quay' }]]);
		expect(toasts[0]!.sentence).toBe('2 documents and 1 folder moved to Quay wall.');
		expect(then).toHaveBeenCalledOnce();
		await takeBack();
		await vi.waitFor(() => expect(then).toHaveBeenCalledTimes(2));
		expect(asked.slice(1)).toEqual([
			['organiseDocuments', { project: 'p', documents: ['d1'], folders: ['f1'], to: 'pit' }],
			['organiseDocuments', { project: 'p', documents: ['d2'], folders: [], to: 'deck' }]
		]);
	});

	it('moves more than an act takes in several, and brings all back; what is refused on the way is said', async () => {
		const documents = Array.from({ length: 2_100 }, (_, i) => `d${i}`);
		const folders = ['f1', 'f2'];
		const lots = () => asked.map(([, input]) => (input.documents as string[]).length);
		const moved = (input: unknown) => {
			const { documents, folders } = input as typeof chosen;
			const from = (id: string) => ({ id, from: 'pit', tags: [] });
			return { documents: documents.map(from), folders: folders.map(from) };
		};
		answers.organiseDocuments = moved;
		await moveMany('p', { documents, folders }, { id: 'quay', name: 'Quay wall' }, then);
		expect(lots()).toEqual([998, 1_000, 102]);
		expect(asked.flatMap(([, input]) => input.documents)).toEqual(documents);
		expect(asked.flatMap(([, input]) => input.folders)).toEqual(folders);
		expect(toasts.map((toast) => toast.sentence)).toEqual([
			'2,100 documents and 2 folders moved to Quay wall.'
		]);
		await takeBack();
		await vi.waitFor(() => expect(then).toHaveBeenCalledTimes(2));
		expect(lots().slice(3)).toEqual([998, 1_000, 102]);

		asked.length = toasts.length = 0;
		answers.organiseDocuments = (input: unknown) =>
			asked.length > 2 ? new Error('One of these is in hand.') : moved(input);
		await moveMany('p', { documents, folders }, { id: 'quay', name: 'Quay wall' }, then);
		expect(toasts[0]!.sentence).toMatch(/^102 documents left as they were: /);
		expect(toasts[1]!.sentence).toBe('1,998 documents and 2 folders moved to Quay wall.');
	});

	it('removes folders and documents together in lots of what an act takes', async () => {
		answers.removePlaces = (input: unknown) => ({ removed: (input as { places: string[] }).places });
		answers.restorePlaces = { documents: 1, folders: [], renamed: [] };
		const documents = Array.from({ length: 1_200 }, (_, i) => `d${i}`);
		await removeMany('p', { documents, folders: ['f1'] }, 'superseded', then);
		expect(asked.map(([, input]) => (input.places as string[]).length)).toEqual([1_000, 201]);
		await takeBack();
		await vi.waitFor(() => expect(then).toHaveBeenCalledTimes(2));
		expect(asked.slice(2).map(([, input]) => (input.places as string[]).length)).toEqual([1_000, 201]);
	});

	it('tags them, and gives each the tags that it had', async () => {
		answers.organiseDocuments = {
			documents: [
				{ id: 'd1', from: null, tags: ['steel'] },
				{ id: 'd2', from: null, tags: [] }
			],
			folders: []
		};
		await tagMany('p', { documents: ['d1', 'd2'], folders: [] }, { tag: ['pit'], untag: [] }, then);
		await takeBack();
		await vi.waitFor(() => expect(then).toHaveBeenCalledTimes(2));
		expect(asked.slice(1)).toEqual([
			['organiseDocuments', { project: 'p', documents: ['d1', 'd2'], tag: [], untag: ['pit'] }]
		]);
	});

	it('gives those their tags that were changed alike together, and leaves alone what was so before', async () => {
		answers.organiseDocuments = {
			documents: [
				{ id: 'd1', from: null, tags: ['pit'] },
				{ id: 'd2', from: null, tags: ['old'] },
				{ id: 'd3', from: null, tags: ['old', 'pit'] },
				{ id: 'd4', from: null, tags: ['old'] }
			],
			folders: []
		};
		await tagMany('p', { documents: [], folders: ['f1'] }, { tag: ['pit'], untag: ['old'] }, then);
		await takeBack();
		await vi.waitFor(() => expect(then).toHaveBeenCalledTimes(2));
		expect(asked.slice(1)).toEqual([
			['organiseDocuments', { project: 'p', documents: ['d2', 'd4'], tag: ['old'], untag: ['pit'] }],
			['organiseDocuments', { project: 'p', documents: ['d3'], tag: ['old'], untag: [] }]
		]);
	});

	it('copies them, names the first of the new, and removes just these', async () => {
		answers.copyDocuments = {
			documents: [1, 2, 3, 4].map((n) => ({ id: `c${n}`, number: `DR-${n}` })),
			folders: ['g1']
		};
		await copyMany('p', chosen, 'quay', then);
		expect(toasts[0]!.sentence).toBe('Copied as DR-1, DR-2, DR-3 and 1 more.');
		await takeBack();
		await vi.waitFor(() => expect(then).toHaveBeenCalledTimes(2));
		expect(asked[1]).toEqual([
			'removePlaces',
			{ project: 'p', places: ['g1', 'c1', 'c2', 'c3', 'c4'], reason: 'Copied by mistake' }
		]);
	});

	it('removes them, restores what was removed and not what was asked for, and says what it is called now', async () => {
		answers.removePlaces = { removed: ['d1', 'f1'] };
		await removeMany('p', chosen, 'superseded', then);
		answers.restorePlaces = { documents: 5, folders: [], renamed: ['DR-1 → DR-1-R1'] };
		await takeBack();
		await vi.waitFor(() => expect(then).toHaveBeenCalledTimes(2));
		expect(asked.slice(1)).toEqual([['restorePlaces', { project: 'p', places: ['d1', 'f1'] }]]);
		expect(toasts[1]!.sentence).toBe('Restored 5 documents. Taken meanwhile, so renamed: DR-1 → DR-1-R1.');
	});

	it('offers nothing to take back when it was refused', async () => {
		answers.removePlaces = new Error('2 of these are in hand.');
		await expect(removeMany('p', chosen, 'superseded', then)).rejects.toThrow('in hand');
		expect([toasts, then.mock.calls]).toEqual([[], []]);
	});
});
