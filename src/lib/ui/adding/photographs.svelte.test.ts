import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';

const { kept, server, Refused } = vi.hoisted(() => ({
	/** What the browser keeps, over reloads. */
	kept: new Map<string, Record<string, unknown>>(),
	server: {
		sent: [] as string[],
		added: [] as Record<string, unknown>[],
		/** What the next uploads and the next additions fail with. */
		sending: [] as Error[],
		adding: [] as Error[],
		next: 1
	},
	Refused: class extends Error {
		constructor(
			readonly code: string,
			message: string
		) {
			super(message);
		}
	}
}));
vi.mock('idb-keyval', () => ({
	createStore: () => null,
	entries: () => Promise.resolve([...kept].map(([key, value]) => [key, structuredClone(value)])),
	set: (key: string, value: Record<string, unknown>) => Promise.resolve(void kept.set(key, { ...value })),
	del: (key: string) => Promise.resolve(void kept.delete(key))
}));
vi.mock('../../client/call', () => ({ CallError: Refused }));
vi.mock('../../client/cupboard', () => ({
	cupboard: {
		proposals: () =>
			Promise.resolve({
				proposals: [{ number: `VFT-SI-ZZ-XX-PH-${String(server.next++).padStart(4, '0')}` }]
			}),
		addDocument: (document: Record<string, unknown>) => {
			const error = server.adding.shift();
			if (error) return Promise.reject(error);
			server.added.push(document);
			return Promise.resolve({ id: `d${server.added.length}`, number: document.number });
		}
	}
}));
vi.mock('./sending.svelte', () => ({
	queue: {
		send: (_: unknown, file: File) => {
			const error = server.sending.shift();
			if (!error) server.sent.push(file.name);
			return { done: error ? Promise.reject(error) : Promise.resolve(`upload of ${file.name}`) };
		}
	}
}));

type Photographs = (typeof import('./photographs.svelte'))['photographs'];
/** A page that is opened anew, with what the browser kept. */
async function opened(person = 'sefa'): Promise<{ photographs: Photographs; leave: () => void }> {
	vi.resetModules();
	const { photographs } = await import('./photographs.svelte');
	return { photographs, leave: await photographs.open(person) };
}
const photograph = (title: string) => ({
	project: { id: 'p', code: 'VFT', keepPosition: true },
	place: 'pit',
	placeName: 'Linkspan pit',
	title,
	tags: 'pit, concrete',
	file: new File(['jpeg'], `${title}.jpg`)
});
const online = (on: boolean) => vi.spyOn(navigator, 'onLine', 'get').mockReturnValue(on);
let leave = () => {};
beforeEach(() => {
	kept.clear();
	Object.assign(server, { sent: [], added: [], sending: [], adding: [], next: 1 });
	online(true);
});
afterEach(() => {
	leave();
	vi.restoreAllMocks();
});

describe('photographs on their way', () => {
	it('become documents under free numbers, one after the other, and are not kept any longer', async () => {
		const { photographs, ...page } = await opened();
		leave = page.leave;
		await photographs.add([photograph('Blinding'), photograph('South wall')]);
		await vi.waitFor(() => expect(photographs.done).toHaveLength(2));
		expect(server.added).toMatchObject([
			{ folder: 'pit', upload: 'upload of Blinding.jpg', title: 'Blinding', tags: ['concrete', 'pit'] },
			{ title: 'South wall', number: 'VFT-SI-ZZ-XX-PH-0002' }
		]);
		expect([photographs.list, kept.size]).toEqual([[], 0]);
	});

	it('wait in the browser without a line, also over a reload, and go when it is back', async () => {
		online(false);
		const first = await opened();
		await first.photographs.add([photograph('Blinding')]);
		first.leave();
		expect([server.sent, kept.size]).toEqual([[], 1]);

		const { photographs, ...page } = await opened();
		leave = page.leave;
		expect(photographs.list.map(({ kept, state }) => [kept.title, state])).toEqual([['Blinding', 'waiting']]);
		online(true);
		dispatchEvent(new Event('online'));
		await vi.waitFor(() => expect(photographs.done).toHaveLength(1));
		expect(kept.size).toBe(0);
	});

	it('of somebody else at this browser are neither shown nor sent', async () => {
		online(false);
		const sefa = await opened('sefa');
		await sefa.photographs.add([photograph('Blinding')]);
		sefa.leave();
		online(true);
		const { photographs, ...page } = await opened('bram');
		leave = page.leave;
		await photographs.add([photograph('Deck')]);
		await vi.waitFor(() => expect(photographs.done).toHaveLength(1));
		expect([server.sent, kept.size]).toEqual([['Deck.jpg'], 1]);
	});

	it('try the next number when somebody else took theirs, and are not sent again for that', async () => {
		server.adding = [new Refused('conflict', 'VFT-SI-ZZ-XX-PH-0001 is taken.')];
		const { photographs, ...page } = await opened();
		leave = page.leave;
		await photographs.add([photograph('Blinding')]);
		await vi.waitFor(() => expect(photographs.done).toHaveLength(1));
		expect([photographs.done[0]!.number, server.sent]).toEqual(['VFT-SI-ZZ-XX-PH-0002', ['Blinding.jpg']]);
	});

	it('are sent once when the line breaks between the picture and the document', async () => {
		server.adding = [new TypeError('Failed to fetch')];
		const { photographs, ...page } = await opened();
		leave = page.leave;
		await photographs.add([photograph('Blinding')]);
		await vi.waitFor(() => expect(photographs.list[0]?.state).toBe('waiting'));
		expect([...kept.values()]).toMatchObject([{ upload: 'upload of Blinding.jpg' }]);
		dispatchEvent(new Event('online'));
		await vi.waitFor(() => expect(photographs.done).toHaveLength(1));
		expect(server.sent).toEqual(['Blinding.jpg']);
	});

	it('say that they were asked for before when no answer came, also after a reload', async () => {
		server.adding = [new TypeError('Failed to fetch')];
		const first = await opened();
		await first.photographs.add([photograph('Blinding')]);
		await vi.waitFor(() => expect(first.photographs.list[0]?.state).toBe('waiting'));
		first.leave();
		const { photographs, ...page } = await opened();
		leave = page.leave;
		await vi.waitFor(() => expect(photographs.done).toHaveLength(1));
		expect([server.sent, server.added]).toMatchObject([['Blinding.jpg'], [{ again: true }]]);
		await photographs.add([photograph('Deck')]);
		await vi.waitFor(() => expect(photographs.done).toHaveLength(2));
		expect(server.added).toMatchObject([{ again: true }, { again: false }]);
	});

	it('that are refused say why and stay, the others go on; they are sent anew when tried again', async () => {
		server.adding = [new Refused('not-found', 'The folder is gone.')];
		const { photographs, ...page } = await opened();
		leave = page.leave;
		await photographs.add([photograph('Blinding'), photograph('Deck')]);
		await vi.waitFor(() => expect(photographs.done).toHaveLength(1));
		expect(photographs.list).toMatchObject([{ state: 'fault', fault: 'The folder is gone.' }]);
		photographs.retry(photographs.list[0]!.kept.id);
		await vi.waitFor(() => expect(photographs.done).toHaveLength(2));
		expect(server.sent).toEqual(['Blinding.jpg', 'Deck.jpg', 'Blinding.jpg']);
	});

	it('can be left out while they wait', async () => {
		online(false);
		const { photographs, ...page } = await opened();
		leave = page.leave;
		await photographs.add([photograph('Blinding')]);
		await photographs.leaveOut(photographs.list[0]!.kept.id);
		expect([photographs.list, kept.size]).toEqual([[], 0]);
	});
});
