import { flushSync } from 'svelte';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { standardRule } from '../../core/numbering/numbering';
import { Settling } from './settling.svelte';

/** A project's documents by number, as the acts that settling calls keep them. */
interface Kept {
	id: string;
	title: string;
	label: string;
	holder: string | null;
	mine: boolean;
	bytes: string;
	folder: string;
	tags: string[];
}
const server = {
	documents: new Map<string, Kept>(),
	folders: [] as { id: string; parentId: string | null; name: string }[],
	/** What is answered instead, once, to a request that begins so. */
	refuses: null as null | { path: RegExp; sentence: string },
	sent: [] as string[],
	locks: [] as string[]
};
const free = (number: string) =>
	number.replace(/\d+$/, (serial) => String(Number(serial) + 1).padStart(serial.length, '0'));

/** What the server refuses, as the client raises it. */
const Refused = vi.hoisted(
	() =>
		class extends Error {
			constructor(
				readonly code: string,
				message: string
			) {
				super(message);
			}
		}
);
vi.mock('../../client/call', () => ({
	CallError: Refused,
	call: (method: string, path: string, body: Record<string, never>) => {
		const { refuses } = server;
		if (refuses?.path.test(path)) {
			server.refuses = null;
			return Promise.reject(new Refused('conflict', refuses.sentence));
		}
		return Promise.resolve(answer(method, path, body));
	}
}));
vi.mock('./sending.svelte', () => ({
	queue: {
		send: (_: unknown, file: File) => {
			server.sent.push(file.name);
			return { state: 'done', done: file.text() };
		}
	}
}));

function answer(method: string, path: string, body: Record<string, string>): unknown {
	const [place, query = ''] = path.split('?');
	// What is too long for an address stands in the body.
	const { files, numbers } = (body ?? {}) as { files?: never; numbers?: never };
	const asked = () => files ?? numbers ?? [...new URLSearchParams(query).values()];
	if (place!.endsWith('/proposals')) {
		let next = 100;
		return {
			proposals: asked().map((name) => ({
				number: `VFT-MW-LS-00-DR-0${++next}`,
				title: name.replace(/\.\w+$/, ''),
				from: 'next'
			}))
		};
	}
	if (place!.endsWith('/numbers'))
		return {
			inUse: asked().flatMap((number) => {
				const document = server.documents.get(number);
				return document ? [{ number, free: free(number), document }] : [];
			})
		};
	if (place!.endsWith('/same-bytes')) {
		const upload = decodeURIComponent(query.split('=')[1]!);
		const twins = [...server.documents].filter(([, { bytes }]) => bytes === upload);
		return { hash: upload, documents: twins.map(([number, { label }]) => ({ number, label })) };
	}
	const [, what, id, more] = place!.split('/');
	if (what === 'places' && method === 'GET') return { tree: server.folders };
	if (what === 'places' && more === 'folders') {
		server.folders.push({ id: `f${server.folders.length}`, parentId: id!, name: body.name! });
		return server.folders.at(-1);
	}
	if (what === 'places' && more === 'documents') {
		const { number, title, tags, upload } = body as never as {
			number: string;
			title: string;
			tags: string[];
			upload: string;
		};
		server.documents.set(number, {
			id: number,
			title,
			label: 'P01.1',
			holder: null,
			mine: false,
			bytes: upload,
			folder: id!,
			tags
		});
		return {};
	}
	const document = [...server.documents.values()].find((one) => one.id === id)!;
	if (more === 'lock') return server.locks.push(document.id);
	document.bytes = body.upload!;
	return document.holder && !document.mine
		? { kept: 'beside', side: 1 }
		: { kept: 'on-the-line', label: 'P01.2' };
}

const file = (name: string, content = name) => new File([content], name);
const settling = () =>
	new Settling('root', {
		id: 'p',
		code: 'VFT',
		maxFileBytes: 1_000,
		numbering: standardRule('VFT', [{ code: 'MW', name: 'Marine works' }]),
		keepPosition: false
	});
const known = (number: string, more: Partial<Kept> = {}) =>
	server.documents.set(number, {
		id: number,
		title: 'Linkspan',
		label: 'P02.1',
		holder: null,
		mine: false,
		bytes: 'old',
		folder: 'root',
		tags: [],
		...more
	});
const take = (table: Settling, ...names: string[]) =>
	table.take({ files: names.map((name) => ({ file: file(name), folders: [] })), empty: [] });
const numbers = (table: Settling) => table.lines.map((line) => line.number.slice(-4));

beforeEach(() => {
	server.documents.clear();
	Object.assign(server, { folders: [], refuses: null, sent: [], locks: [] });
});

describe('settling many files', () => {
	it('proposes a number for each, also when they come in several goes', async () => {
		const table = settling();
		await take(table, 'hinge.dxf', 'pit.dxf');
		await take(table, 'tower.dxf');
		expect(numbers(table)).toEqual(['0101', '0102', '0103']);
		await table.addAll();
		expect(table.lines.map((line) => line.state)).toEqual(['done', 'done', 'done']);
		expect([...server.documents.values()].map((one) => one.title)).toEqual(['hinge', 'pit', 'tower']);
	});

	it('asks about as many names as fit into a question', async () => {
		const table = settling();
		await take(table, ...Array.from({ length: 250 }, (_, i) => `pile ${i}.dxf`));
		expect(table.fault).toBe('');
		expect(new Set(numbers(table)).size).toBe(250);
	});

	it('adds what may land, and leaves each other file with what is wrong with it', async () => {
		known('VFT-MW-LS-00-DR-0102');
		const table = settling();
		await table.take({
			files: [
				{ file: file('1 good.dxf'), folders: [] },
				{ file: file('2 taken.dxf'), folders: [] },
				{ file: file('3 empty.dxf', ''), folders: [] },
				{ file: file('4 large.dxf', 'x'.repeat(2_000)), folders: [] }
			],
			empty: []
		});
		expect(table.lines.map((line) => line.faults)).toEqual([
			[],
			['VFT-MW-LS-00-DR-0102 is taken.'],
			['The file is empty.'],
			[expect.stringMatching(/^Larger than the project allows/)]
		]);
		await table.addAll();
		expect(table.lines.map((line) => line.state)).toEqual(['done', 'ready', 'ready', 'ready']);
		expect(server.sent).toEqual(['1 good.dxf']);
	});

	it('two files with one number both wait', async () => {
		const table = settling();
		await take(table, 'a.dxf', 'b.dxf');
		table.lines[1]!.number = table.lines[0]!.number;
		await table.addAll();
		expect(server.documents.size).toBe(0);
		expect(table.lines[0]!.faults[0]).toMatch(/^Another file here has the number/);
	});

	it('a file that lands leaves the others as they were judged, however many they are', async () => {
		const table = settling();
		await take(table, ...Array.from({ length: 50 }, (_, i) => `pile ${i}.dxf`));
		let judged = 0;
		const stop = $effect.root(() => {
			for (const line of table.lines) $effect(() => void (line.faults, judged++));
		});
		flushSync();
		judged = 0;
		table.lines[0]!.state = 'done';
		flushSync();
		expect(judged).toBe(1);
		table.lines[1]!.number = table.lines[2]!.number;
		flushSync();
		expect(table.lines.filter(({ faults }) => faults.length)).toEqual(table.lines.slice(1, 3));
		stop();
	});

	it('makes the next version of what one has in hand, and locks what nobody has', async () => {
		known('VFT-MW-LS-00-DR-0101', { holder: 'Oke Lindvar', mine: true });
		known('VFT-MW-LS-00-DR-0102');
		const table = settling();
		await take(table, '1 mine.dxf', '2 free.dxf');
		expect(table.lines.map((line) => line.becomes)).toEqual(['version', 'undecided']);
		table.lines[1]!.becomes = 'version';
		await table.addAll();
		expect(server.locks).toEqual(['VFT-MW-LS-00-DR-0102']);
		expect(table.lines.map((line) => line.hint)).toEqual([
			'next version of Linkspan',
			'next version of Linkspan'
		]);
		expect(server.documents.get('VFT-MW-LS-00-DR-0101')!.bytes).toBe('1 mine.dxf');
	});

	it('settles all that are undecided in one choice', async () => {
		known('VFT-MW-LS-00-DR-0101');
		known('VFT-MW-LS-00-DR-0102');
		const table = settling();
		await take(table, '1.dxf', '2.dxf', '3.dxf');
		expect(table.undecided).toHaveLength(2);
		table.decideAll('version');
		expect(table.lines.map((l) => l.becomes)).toEqual(['version', 'version', 'document']);
		await table.addAll();
		expect(table.lines.map((l) => l.state)).toEqual(['done', 'done', 'done']);
	});

	it('sets a file beside what has its number, under the next one that is free here and there', async () => {
		known('VFT-MW-LS-00-DR-0101');
		const table = settling();
		await take(table, 'a.dxf', 'b.dxf');
		table.beside(table.lines[0]!);
		expect(numbers(table)).toEqual(['0103', '0102']);
		expect(table.lines[0]!.faults).toEqual([]);
	});

	it('warns of bytes that are here already, once', async () => {
		known('VFT-MW-LS-00-DR-0777', { bytes: 'same' });
		const table = settling();
		await table.take({ files: [{ file: file('twin.dxf', 'same'), folders: [] }], empty: [] });
		await table.addAll();
		expect(table.lines[0]).toMatchObject({
			state: 'fault',
			hint: 'same bytes as VFT-MW-LS-00-DR-0777 P02.1'
		});
		await table.addAll();
		expect(table.lines[0]!.state).toBe('done');
		// What was sent is not sent again.
		expect(server.sent).toEqual(['twin.dxf']);
	});

	it('warns of two files with the same bytes in one batch, and adds both when that is meant', async () => {
		const table = settling();
		const files = ['one.dxf', 'two.dxf'].map((name) => ({ file: file(name, 'same'), folders: [] }));
		await table.take({ files, empty: [] });
		await table.addAll();
		expect(table.lines.map((l) => l.state).sort()).toEqual(['done', 'fault']);
		const told = table.lines.find((l) => l.state === 'fault')!;
		expect(told.fault).toMatch(/^(This batch has|These bytes are here already)/);
		await table.addAll();
		expect(server.documents.size).toBe(2);
	});

	it('numbers files in the order of their names, whatever the order of the disk', async () => {
		const table = settling();
		const files = [
			['B', 'sheet 2.dxf'],
			['A', 'sheet 10.dxf'],
			['B', 'sheet 1.dxf'],
			['A', 'sheet 9.dxf']
		].map(([folder, name]) => ({ file: file(name!), folders: [folder!] }));
		await table.take({ files, empty: [] });
		expect(table.lines.map((l) => [l.way, l.number.slice(-4)])).toEqual([
			['A / sheet 9.dxf', '0101'],
			['A / sheet 10.dxf', '0102'],
			['B / sheet 1.dxf', '0103'],
			['B / sheet 2.dxf', '0104']
		]);
	});

	it('makes empty folders of a tree, too', async () => {
		const table = settling();
		await table.take({
			files: [{ file: file('a.dxf'), folders: ['Quay'] }],
			empty: [['Quay', 'As built'], ['Photographs']]
		});
		await table.addAll();
		expect(server.folders.map((f) => f.name).sort()).toEqual(['As built', 'Photographs', 'Quay']);
		expect(table.empty).toEqual([]);
	});

	it('keeps a file with what the server said, and asks anew whether its number is free', async () => {
		const table = settling();
		await take(table, 'a.dxf');
		server.refuses = { path: /documents$/, sentence: 'Somebody was faster.' };
		known('VFT-MW-LS-00-DR-0101');
		await table.addAll();
		expect(table.lines[0]).toMatchObject({ state: 'fault', fault: 'Somebody was faster.' });
		await table.look();
		expect(table.lines[0]!.faults).toEqual(['VFT-MW-LS-00-DR-0101 is taken.']);
	});

	it('says it when the server cannot be asked, and loses no file', async () => {
		const table = settling();
		server.refuses = { path: /proposals/, sentence: 'The line is down.' };
		await take(table, 'a.dxf');
		expect(table.fault).toBe('The line is down.');
		expect(table.lines).toHaveLength(1);
	});

	it('fills down over what is still open, and pastes by place or by file name', async () => {
		const table = settling();
		await take(table, 'a.dxf', 'b.dxf', 'c.dxf');
		table.lines[0]!.number = 'VFT-MW-LS-00-DR-0500';
		table.fillDown('number');
		expect(numbers(table)).toEqual(['0500', '0501', '0502']);
		await table.paste('Deck\tsteel\nTower\tconcrete', 1, 'title');
		expect(table.lines.map((line) => [line.title, line.tags])).toEqual([
			['a', ''],
			['Deck', 'steel'],
			['Tower', 'concrete']
		]);
		await table.paste('C.dxf\tVFT-MW-LS-00-DR-0900\tNamed\nA.dxf\tVFT-MW-LS-00-DR-0901\tFirst', 0, 'number');
		expect(numbers(table)).toEqual(['0901', '0501', '0900']);
		expect(table.lines[2]!.title).toBe('Named');
	});

	it('lands a tree of folders with its structure, each folder made once', async () => {
		server.folders = [{ id: 'f0', parentId: 'root', name: 'Linkspan' }];
		const table = settling();
		await table.take({
			files: [['linkspan'], ['linkspan', 'Pit'], ['linkspan', 'Pit'], []].map((folders, i) => ({
				file: file(`${i}.dxf`),
				folders
			})),
			empty: []
		});
		await table.addAll();
		expect(server.folders.map((one) => [one.parentId, one.name])).toEqual([
			['root', 'Linkspan'],
			['f0', 'Pit']
		]);
		expect([...server.documents.values()].map((one) => one.folder).sort()).toEqual([
			'f0',
			'f1',
			'f1',
			'root'
		]);
	});

	it('says why an archive could not be unpacked, and keeps it', async () => {
		const table = settling();
		await take(table, 'broken.zip');
		await table.unpack(table.lines[0]!);
		expect(table.lines[0]).toMatchObject({
			state: 'fault',
			fault: expect.stringMatching(/unpacked|archive/i) as string
		});
	});
});
