import * as encoding from 'lib0/encoding';
import { and, eq } from 'drizzle-orm';
import { EditorState } from 'prosemirror-state';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import * as Y from 'yjs';
import { textSchema } from '../../src/lib/core/text/schema';
import { readText, rewriteText } from '../../src/lib/core/text/shared';
import { asSuggestion } from '../../src/lib/core/text/suggestions';
import { endAccess, letIn } from '../../src/lib/server/access/acts';
import { endLive, handInLive, restoreLive, takeLive } from '../../src/lib/server/live/acts';
import { addLiveText, workLive } from '../../src/lib/server/live/acts-texts';
import { handIn } from '../../src/lib/server/documents/acts-hand-in';
import { takeLock } from '../../src/lib/server/locks/acts';
import { document, grant, liveUpdate } from '../../src/lib/server/platform/db/schema';
import { documentView } from '../../src/lib/server/documents/views';
import { liveAuthors, liveText } from '../../src/lib/server/live/views';
import { CLOSED } from '../../src/lib/server/live/rooms/sockets';
import { Guest, RoomServer } from './room';
import { refused, TestWorld } from './world';

let world: TestWorld;
let rooms: RoomServer;

const text = (...paragraphs: string[]) =>
	textSchema
		.node(
			'doc',
			null,
			paragraphs.map((p) => textSchema.node('paragraph', null, p ? [textSchema.text(p)] : []))
		)
		.toJSON() as unknown;

/** Somebody with the text open in a browser. */
class Writer extends Guest {
	override says(): string {
		return readText(this.doc).textBetween(0, readText(this.doc).content.size, '|');
	}
	/** Types at a place of the text. */
	type(words: string, from: number, to = from): void {
		rewriteText(this.doc, EditorState.create({ doc: readText(this.doc) }).tr.insertText(words, from, to).doc);
	}
}
const enter = (who: string, room: string): Promise<Writer> => rooms.enter(Writer, who, room);

/** Lets somebody in at a place; gives the grant. */
async function give(place: string, who: string, level: string): Promise<string> {
	const person = world.people[who]!.person.id;
	await world.act('oke', letIn, { place, lines: [{ subject: { kind: 'person', id: person }, level }] });
	const [row] = await world.db
		.select({ id: grant.id })
		.from(grant)
		.where(and(eq(grant.placeId, place), eq(grant.subjectId, person)));
	return row!.id;
}

let serial = 0;
async function begin(...paragraphs: string[]): Promise<{ id: string; room: string }> {
	const { id } = await world.act('oke', addLiveText, {
		folder: world.folder,
		number: `VFT-MW-LS-00-SP-${String(++serial).padStart(4, '0')}`,
		title: 'Specification',
		text: text(...paragraphs)
	});
	return { id, room: (await world.read('oke', documentView, { document: id })).room!.name };
}

beforeAll(async () => {
	world = await TestWorld.open();
	rooms = await RoomServer.start(world);
	// Halla may remark on the folder, Petra only look.
	for (const [person, level] of [
		['halla', 'remark'],
		['petra', 'view']
	] as const)
		await give(world.folder, person, level);
});
afterAll(async () => {
	rooms.close();
	await world.close();
});

describe('a live text', () => {
	it('is written by two at once, through a lost line, and nothing is lost', async () => {
		const { id, room } = await begin('Scope.', 'Materials.');
		const [oke, rhosyn] = [await enter('oke', room), await enter('rhosyn', room)];
		await oke.until(() => oke.says() === 'Scope.|Materials.');
		await rhosyn.until(() => rhosyn.says() === 'Scope.|Materials.');
		oke.type('The ', 1);
		await rhosyn.until(() => rhosyn.says().startsWith('The Scope'));
		rhosyn.line(false);
		rhosyn.type('All ', 13);
		oke.type('whole ', 5);
		await rhosyn.until(() => rhosyn.closes.length > 0);
		rhosyn.line(true);
		await oke.until(() => oke.says() === 'The whole Scope.|All Materials.');
		await rhosyn.until(() => rhosyn.says() === oke.says());
		const { text: said } = await world.read('petra', liveText, { document: id });
		expect(JSON.stringify(said)).toContain('The whole Scope.');
		// Stored a moment later, with who wrote it.
		await world.services.rooms.record.flush(room);
		const rows = await world.db.select().from(liveUpdate).where(eq(liveUpdate.room, room));
		expect(new Set(rows.map((r) => r.personId))).toEqual(
			new Set([world.people.oke!.person.id, world.people.rhosyn!.person.id])
		);
	});

	it('takes nothing from somebody who may only look, whatever their browser says', async () => {
		const { room } = await begin('Scope.');
		const [oke, petra] = [await enter('oke', room), await enter('petra', room)];
		await petra.until(() => petra.says() === 'Scope.');
		// Looking on, coming back and seeing what the others write is fine; the server says so when more is tried.
		petra.line(false);
		await petra.until(() => petra.closes.length > 0);
		oke.type('x', 1);
		petra.line(true);
		await petra.until(() => petra.says() === 'xScope.');
		expect(petra.closes).not.toContain(4409);
		petra.type('No ', 1);
		await petra.until(() => petra.closes.includes(4409));
		petra.close();
		expect(oke.says()).toBe('xScope.');
	});

	it('outlives changes that are none, from whoever reads, suggests or writes', async () => {
		const { room } = await begin('Scope.');
		const oke = await enter('oke', room);
		await oke.until(() => oke.says() === 'Scope.');
		for (const who of ['petra', 'halla', 'rhosyn']) {
			const guest = await enter(who, room);
			await guest.until(() => guest.says().endsWith('Scope.'));
			const message = encoding.createEncoder();
			encoding.writeVarString(message, room);
			encoding.writeVarUint(message, 0);
			encoding.writeVarUint(message, 2);
			encoding.writeVarUint8Array(message, Uint8Array.of(255, 255, 255, 9));
			guest.raw(encoding.toUint8Array(message));
			await guest.heard();
			guest.close();
			oke.type('x', 1);
			const after = await enter('rhosyn', room);
			await after.until(() => after.says() === oke.says());
			after.close();
		}
		expect(oke.says()).toBe('xxxScope.');
	});

	it('takes suggestions, and only those, from somebody with Remark', async () => {
		const { id, room } = await begin('Class C35/45.');
		const [oke, halla] = [await enter('oke', room), await enter('halla', room)];
		await halla.until(() => halla.says() === 'Class C35/45.');
		const state = EditorState.create({ doc: readText(halla.doc) });
		const me = world.people.halla!.person.id;
		const suggestion = asSuggestion(state, state.tr.insertText('C40/50', 7, 13), `${me}.1`)!;
		rewriteText(halla.doc, suggestion.doc);
		await oke.until(() => oke.says() === 'Class C35/45C40/50.');
		halla.type('Not a suggestion. ', 1);
		await halla.until(() => halla.closes.includes(4409));
		halla.close();
		expect(oke.says()).toBe('Class C35/45C40/50.');
		// What is suggested goes out as tracked changes with the name of who suggests.
		expect((await world.act('rhosyn', takeLive, { document: id, format: 'docx' })).names).toEqual({
			[me]: 'Halla Brandt'
		});
	});

	it('lets nobody speak under another’s name', async () => {
		const { room } = await begin('Scope.');
		const petra = await enter('petra', room);
		await petra.until(() => petra.says() === 'Scope.');
		petra.provider.awareness!.setLocalStateField('user', {
			id: world.people.oke!.person.id,
			name: 'Oke Lindvar'
		});
		await petra.until(() => petra.closes.includes(4409));
		petra.close();
	});

	it('is closed to who may not look, who is not signed in, and pages from elsewhere', async () => {
		const { room } = await begin('Secret.');
		const { origin } = world.services.config;
		expect(await rooms.status(room, { origin, 'x-who': 'edda' })).toBe(404);
		expect(await rooms.status(room, { origin })).toBe(401);
		expect(await rooms.status(room, { origin: 'https://elsewhere.example', 'x-who': 'oke' })).toBe(403);
		expect(await rooms.status(room.replace(/[^/]+$/, 'zzzzzzzzzz'), { origin, 'x-who': 'oke' })).toBe(404);
	});

	it('follows access and locks as they change', async () => {
		const { id, room } = await begin('Scope.');
		const grant = await give(id, 'edda', 'work');
		const [rhosyn, edda] = [await enter('rhosyn', room), await enter('edda', room)];
		await edda.until(() => edda.says() === 'Scope.');
		await rhosyn.until(() => rhosyn.says() === 'Scope.');
		await world.act('oke', endAccess, { place: id, grant });
		await edda.until(() => edda.closes.length > 0);
		await world.act('oke', takeLock, { document: id, purpose: 'the final wording' });
		await rhosyn.until(() => rhosyn.closes.includes(CLOSED.accessChanged));
		const oke = await enter('oke', room);
		await oke.until(() => oke.says() === 'Scope.');
		rhosyn.type('Late. ', 1);
		// Her browser comes back and asks; by the time somebody else stands in the room, it has been answered.
		await rhosyn.until(() => rhosyn.closes.includes(4409));
		expect(oke.says()).toBe('Scope.');
		expect(await refused(world.act('rhosyn', handInLive, { document: id, note: 'x' }))).toMatchObject({
			code: 'in-hand'
		});
		oke.type('Final. ', 1);
		await oke.until(() => !oke.provider.hasUnsyncedChanges);
		expect((await world.act('oke', handInLive, { document: id, note: 'final' })).label).toBe('P01.2');
		expect((await world.read('oke', documentView, { document: id })).row.lock).toBeNull();
	});

	it('is left by whoever has access until a moment, once it has come', async () => {
		const { id, room } = await begin('Scope.');
		const grantId = await give(id, 'edda', 'work');
		const edda = await enter('edda', room);
		await edda.until(() => edda.says() === 'Scope.');
		const end = new Date(Date.now() + 600);
		await world.db.update(grant).set({ endsAt: end }).where(eq(grant.id, grantId));
		await edda.until(() => edda.closes.includes(CLOSED.accessChanged));
		expect(Date.now()).toBeGreaterThanOrEqual(end.getTime());
	});

	it('is cut into versions with who wrote what, and brought back forward', async () => {
		const { id, room } = await begin('Cover 50 mm.');
		const [oke, rhosyn] = [await enter('oke', room), await enter('rhosyn', room)];
		await rhosyn.until(() => rhosyn.says() === 'Cover 50 mm.');
		await oke.until(() => oke.says() === 'Cover 50 mm.');
		expect(await refused(world.act('oke', handInLive, { document: id, note: 'nothing' }))).toMatchObject({
			code: 'conflict'
		});
		rhosyn.type('65', 7, 9);
		await oke.until(() => oke.says() === 'Cover 65 mm.');
		const { label } = await world.act('oke', handInLive, { document: id, note: 'cover', format: 'odt' });
		const { passages, people } = await world.read('petra', liveAuthors, {
			document: id,
			from: 'P01.1',
			to: label
		});
		const by = world.people.rhosyn!.person.id;
		expect(passages[0]!.runs).toEqual(
			expect.arrayContaining([
				{ text: '65', change: 'added', by },
				{ text: '50', change: 'removed', by }
			])
		);
		expect(people).toContainEqual({ id: by, name: 'Rhosyn Hale' });
		await world.act('oke', restoreLive, { document: id, label: 'P01.1' });
		await rhosyn.until(() => rhosyn.says() === 'Cover 50 mm.');
		const { versions } = await world.read('oke', documentView, { document: id });
		expect(versions.map((v) => v.fileName.split('.')[1])).toEqual(['odt', 'docx']);
	});

	it('survives a server that is killed: what came is in the database', async () => {
		const { id, room } = await begin('Scope.');
		const oke = await enter('oke', room);
		await oke.until(() => oke.says() === 'Scope.');
		for (let i = 0; i < 900; i++) oke.type('x', 1);
		await oke.until(() => !oke.provider.hasUnsyncedChanges);
		await world.services.rooms.record.flush(room);
		// As a new process would: from the database alone, after it was folded.
		const doc = new Y.Doc();
		Y.applyUpdate(doc, (await world.services.rooms.record.load(world.db, room))!);
		expect(readText(doc).textContent).toBe(`${'x'.repeat(900)}Scope.`);
		const rows = await world.db.select().from(liveUpdate).where(eq(liveUpdate.room, room));
		expect(rows.length).toBeLessThan(400);
		expect(JSON.stringify(await world.read('oke', liveText, { document: id }))).toContain('xScope.');
	});
});

describe('a file', () => {
	it('is edited together and becomes a file again, and nothing of an old room comes into a new one', async () => {
		const { id } = await world.add('oke', '# Scope');
		expect(
			await refused(world.act('rhosyn', workLive, { document: id, base: 'P01.7', text: text('x') }))
		).toMatchObject({ code: 'stale-base' });
		await world.act('rhosyn', workLive, { document: id, base: 'P01.1', text: text('Scope') });
		const first = (await world.read('oke', documentView, { document: id })).room!;
		expect(first.mode).toBe('write');
		const oke = await enter('oke', first.name);
		await oke.until(() => oke.says() === 'Scope');
		oke.type('My ', 1);
		await oke.until(() => !oke.provider.hasUnsyncedChanges);
		expect(await refused(world.act('oke', endLive, { document: id }))).toMatchObject({ code: 'conflict' });
		const upload = await world.send('oke', 'other');
		expect(await refused(world.act('oke', handIn, { document: id, upload, note: 'x' }))).toMatchObject({
			code: 'conflict'
		});
		await world.act('oke', handInLive, { document: id, note: 'mine' });
		await world.act('oke', endLive, { document: id });
		await oke.until(() => oke.closes.length > 0);
		await world.act('rhosyn', workLive, { document: id, base: 'P01.2', text: text('Anew') });
		const second = (await world.read('oke', documentView, { document: id })).room!;
		expect(second.name).not.toBe(first.name);
		const again = await enter('oke', second.name);
		await again.until(() => again.says() === 'Anew');
		expect((await world.db.select().from(document).where(eq(document.id, id)))[0]!.kind).toBe('text');
	});

	it('is no live text when its words do not fit', async () => {
		const { id } = await world.add();
		for (const bad of [null, 'x', { type: 'doc' }, { type: 'doc', content: [{ type: 'iframe' }] }])
			expect(
				await refused(world.act('oke', workLive, { document: id, base: 'P01.1', text: bad }))
			).toMatchObject({ code: 'invalid' });
	});
});
