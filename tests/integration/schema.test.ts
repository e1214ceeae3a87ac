import { randomBytes } from 'node:crypto';
import { cpSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { getTableConfig, PgTable } from 'drizzle-orm/pg-core';
import postgres from 'postgres';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { migrateDatabase } from '../../src/lib/server/platform/db/migrate';
import * as schema from '../../src/lib/server/platform/db/schema';
import { address } from './global-setup';

const { generateDrizzleJson, generateMigration } = createRequire(import.meta.url)(
	'drizzle-kit/api'
) as typeof import('drizzle-kit/api');

interface Journal {
	entries: { tag: string }[];
}
const journal = (folder: string) =>
	JSON.parse(readFileSync(join(folder, 'meta/_journal.json'), 'utf8')) as Journal;

/** The migrations up to one of them, in a folder of their own. */
function upTo(tag: string): string {
	const folder = mkdtempSync(join(tmpdir(), 'cupboard-migrations-'));
	cpSync('drizzle', folder, { recursive: true });
	const { entries, ...rest } = journal(folder);
	const kept = entries.slice(0, entries.findIndex((one) => one.tag === tag) + 1);
	writeFileSync(join(folder, 'meta/_journal.json'), JSON.stringify({ ...rest, entries: kept }));
	return folder;
}

const database = `test_${randomBytes(6).toString('hex')}`;
const admin = postgres(process.env.DATABASE_URL!, { max: 1, onnotice: () => {} });
let db: ReturnType<typeof postgres>;
beforeAll(async () => {
	await admin.unsafe(`create database ${database}`);
	db = postgres(address(database), { max: 1, onnotice: () => {} });
});
afterAll(async () => {
	await db.end();
	await admin.unsafe(`drop database ${database} with (force)`);
	await admin.end();
});

describe('the migrations', () => {
	it('make exactly the tables that the schema says', async () => {
		const last = `drizzle/meta/${String(journal('drizzle').entries.length - 1).padStart(4, '0')}_snapshot.json`;
		const known = JSON.parse(readFileSync(last, 'utf8')) as Parameters<typeof generateMigration>[0];
		const now = generateDrizzleJson(schema, known.id, undefined, undefined);
		expect(await generateMigration(known, now)).toEqual([]);
	});

	it('bring old words to new ones, and have every word that is one of few refused otherwise', async () => {
		const before = upTo('0014_broken_locks');
		await migrateDatabase(address(database), before);
		rmSync(before, { recursive: true });
		const settings = { runNeedsTwoStep: true, outsideLevel: 'take', stamps: [] };
		await db`insert into project (id, code, name, client, time_zone, settings)
			values ('p', 'OLD', 'Old', '', 'Europe/Oslo', ${db.json(settings)})`;
		await db`insert into place (id, project_id, kind, name, name_key, path, scope)
			values ('shelf00000', 'p', 'shelf', 'S', 's', 'shelf00000', 'shelf00000')`;
		for (const [id, level, bring] of [
			['a', 'look', null],
			['b', 'run', 'tidy'],
			['c', 'work', 'take'],
			['d', null, null]
		])
			await db`insert into access_grant (id, place_id, subject_kind, subject_id, level, bring_level)
				values (${id!}, 'shelf00000', 'person', ${id!}, ${level!}, ${bring!})`;
		await migrateDatabase(address(database));
		expect(
			(await db`select id, level, bring_level from access_grant order by id`).map((row) => [
				...Object.values(row)
			])
		).toEqual([
			['a', 'view', null],
			['b', 'manage', 'organise'],
			['c', 'work', 'download'],
			['d', null, null]
		]);
		const [row] = await db`select settings from project`;
		expect(row!.settings).toEqual({ manageNeedsTwoStep: true, outsideLevel: 'download', stamps: [] });
		await expect(db`update access_grant set level = 'look' where id = 'a'`).rejects.toMatchObject({
			constraint_name: 'access_grant_level'
		});
	});

	it('have whole numbers looked for in an index of whole numbers, and parts of them in one of parts', async () => {
		await migrateDatabase(address(database));
		const plan = (where: string) =>
			db.begin(async (tx) => {
				await tx`set local enable_seqscan = off`;
				return JSON.stringify(await tx.unsafe(`explain select id from document where ${where}`));
			});
		// An index of parts takes whole numbers, too: through all that are alike, which in a large project takes minutes.
		expect(await plan("number = 'VFT-MW-LS-00-DR-0101'")).not.toContain('document_number_words');
		expect(await plan("upper(number) like '%0101%'")).toContain('document_number_words');
	});

	it('hold in the database whatever the schema says is one of few', async () => {
		const held = await db`select conrelid::regclass::text as of, pg_get_constraintdef(oid) as says
			from pg_constraint where contype = 'c'`;
		for (const table of Object.values(schema)) {
			if (!(table instanceof PgTable)) continue;
			const { name, columns } = getTableConfig(table);
			for (const column of columns.filter((one) => one.enumValues?.length)) {
				const check = held.find(
					({ of, says }) => of.replaceAll('"', '') === name && says.includes(column.name)
				);
				expect(check, `${name}.${column.name}`).toBeDefined();
				for (const word of column.enumValues!) expect(check!.says).toContain(`'${word}'`);
			}
		}
	});
});
