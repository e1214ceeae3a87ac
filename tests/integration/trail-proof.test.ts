import { oneStep } from '../../src/lib/core/releases/route';
import { appendFileSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { sql, type SQL } from 'drizzle-orm';
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { askApproval } from '../../src/lib/server/releases/acts-approval';
import { buildRelease } from '../../src/lib/server/releases/acts-begin';
import { issueRelease } from '../../src/lib/server/releases/acts-issue';
import { openPass } from '../../src/lib/server/passes/acts-open';
import { signVerdicts } from '../../src/lib/server/passes/acts-release';
import { signHeads } from '../../src/lib/server/trail/heads';
import { activity } from '../../src/lib/server/trail/views';
import { openDocument } from '../../src/lib/server/documents/acts';
import { TestWorld } from './world';

let world: TestWorld;
let document: { id: string; number: string };
let release: { id: string; number: number };

beforeAll(async () => {
	world = await TestWorld.open();
	document = await world.add();
	await world.revise(document.id);
	release = await world.act('ines', buildRelease, {
		project: 'VFT',
		title: 'Linkspan for comment',
		purpose: 'comment',
		recipients: [{ recipient: world.recipient }],
		route: oneStep(world.people.halla!.person.id),
		documents: [document.id]
	});
	await world.acceptAll(release);
	await world.act('ines', askApproval, { release: release.id });
	await world.approve('halla', release);
	const { passes } = await world.act('ines', issueRelease, { release: release.id, number: release.number });
	const secret = passes[0]!.link.split('/pass/')[1]!;
	await world.act(null, openPass, { secret });
	await world.act(null, signVerdicts, {
		secret,
		name: 'Maren Aldgate',
		answers: [{ document: document.id, code: 'B', remark: 'Show the ladder.' }]
	});
	await signHeads(world.db, world.config.home, new Date());
	await world.act('oke', openDocument, { document: document.id });
});
afterAll(() => world?.close());

/** What verify finds after something was changed behind Cupboard's back; all is as before afterwards. */
async function foundAfter(...changes: SQL[]): Promise<string | null> {
	let fault: string | null = '';
	await world.db
		.transaction(async (tx) => {
			for (const change of [sql`set local session_replication_role = replica`, ...changes])
				await tx.execute(change);
			const { db } = world.services.database;
			world.services.database.db = tx as unknown as typeof db;
			try {
				({ fault } = await world.verify());
			} finally {
				world.services.database.db = db;
			}
			throw new Error('put back');
		})
		.catch((error: Error) => {
			if (error.message !== 'put back') throw error;
		});
	return fault;
}

describe('verify', () => {
	beforeEach(async () => expect((await world.verify()).fault).toBeNull());

	it('finds that an entry names somebody else', async () => {
		expect(
			await foundAfter(sql`update event set actor_name = 'Rhosyn Hale' where kind = 'document.added'`)
		).toMatch(/was written of .* and now names Rhosyn Hale/);
	});
	it('finds a tail cut off together with the head', async () => {
		const seq = sql`(select max(seq) - 3 from event)`;
		expect(
			await foundAfter(
				sql`delete from event where kind in ('document.opened', 'pass.opened', 'receipt.confirmed', 'verdict.given') and seq > ${seq}`,
				sql`delete from verdict`,
				sql`update chain_head set seq = (select max(seq) from event), hash = (select hash from event order by seq desc limit 1)`
			)
		).toMatch(/were signed for on .*, and the chain ends before/);
	});
	it('finds all entries deleted, with or without their head', async () => {
		expect(await foundAfter(sql`delete from event`, sql`delete from chain_head`)).toContain('no entries');
		expect(await foundAfter(sql`delete from chain_head`)).toContain('head of the chain is gone');
	});
	it('finds a project deleted with all that was its own', async () => {
		expect(
			await foundAfter(
				sql`delete from event`,
				sql`delete from chain_head`,
				sql`delete from release`,
				sql`delete from project`
			)
		).toMatch(/were signed for on/);
	});
	it.each([
		[
			'a version’s file',
			sql`update version set hash = repeat('a', 64) where issued = false`,
			/is not the file that was written down/
		],
		[
			'a version deleted',
			sql`delete from version where seq = 1`,
			/was written down at entry \d+ and is gone/
		],
		[
			'a pinned hash',
			sql`update release_item set pinned_hash = repeat('a', 64)`,
			/is not the file that was issued/
		],
		['an item taken out', sql`delete from release_item`, /was issued at entry \d+ and is not in it any more/],
		[
			'another digest as approved',
			sql`update release_decision set digest = repeat('a', 64)`,
			/what was approved is not/
		],
		[
			'a manifest and its hash',
			sql`update release set manifest_hash = repeat('a', 64)`,
			/its manifest is not the one that was issued/
		],
		[
			'a manifest',
			sql`update release set manifest = manifest || '{"approvedBy":"Rhosyn Hale"}'`,
			/manifest was changed after/
		],
		[
			'a signature',
			sql`update release set manifest_signature = encode(repeat('x', 64)::bytea, 'base64')`,
			/signature of its manifest does not hold/
		],
		[
			'the list that went to somebody, with its hash',
			sql`update release_recipient set manifest_hash = repeat('a', 64)`,
			/what went to Maren Aldgate is not what was issued/
		],
		[
			'the list that went to somebody',
			sql`update release_recipient set manifest = manifest || '{"recipient":"Rhosyn Hale"}'`,
			/to Maren Aldgate: its manifest was changed after/
		],
		[
			'a verdict that nobody made out of others',
			sql`update release_item set outcome = 'A', outcome_by = (select id from person limit 1)`,
			/nobody made this one out of the verdicts/
		],
		[
			'another cover note',
			sql`update release set cover_note_hash = (select hash from version limit 1)`,
			/its manifest is not the one/
		],
		['an issue undone', sql`update release set issued_at = null`, /Release \d+: .* is not in it any more/],
		['a verdict', sql`update verdict set code = 'A'`, /verdict on .* is not the one that was signed/],
		[
			'a remark of a verdict',
			sql`update verdict set remark = ''`,
			/verdict on .* is not the one that was signed/
		],
		['a verdict deleted', sql`delete from verdict`, /verdict on .* is gone/]
	])('finds %s changed', async (_, change, sentence) => {
		expect(await foundAfter(change)).toMatch(sentence);
	});
	it('finds a kept head that was changed', async () => {
		const file = join(world.config.home, 'heads', `${world.project}.jsonl`);
		const was = readFileSync(file, 'utf8');
		writeFileSync(file, was.replace('"seq":', '"seq":1'));
		expect((await world.verify()).fault).toContain('was changed after it was signed');
		writeFileSync(file, was);
		appendFileSync(file, 'no head at all\n');
		expect((await world.verify()).fault).toContain('was changed after it was signed');
		writeFileSync(file, was);
	});
	it('signs a chain again only when it has grown', async () => {
		await signHeads(world.db, world.config.home, new Date());
		expect(await signHeads(world.db, world.config.home, new Date())).toBe(0);
	});
});

describe('the activity', () => {
	it('hides openings and downloads until they are asked for (V5)', async () => {
		const kinds = async (input: Record<string, unknown>) =>
			(await world.read('ines', activity, { project: 'VFT', ...input })).events.map((e) => e.kind);
		expect(await kinds({})).not.toContain('document.opened');
		expect(await kinds({})).toContain('document.added');
		expect(await kinds({ kind: 'all' })).toContain('document.opened');
		expect(new Set(await kinds({ kind: 'openings' }))).toEqual(new Set(['document.opened', 'pass.opened']));
	});
});
