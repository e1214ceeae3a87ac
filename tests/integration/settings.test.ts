import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { standardRule } from '../../src/lib/core/numbering/numbering';
import { eventText } from '../../src/lib/core/events';
import { addDocument } from '../../src/lib/server/documents/acts';
import { changeNumbering, changeSettings } from '../../src/lib/server/people/acts-membership';
import { projectFrame } from '../../src/lib/server/places/views';
import { activity } from '../../src/lib/server/trail/views';
import { refused, TestWorld } from './world';

let world: TestWorld;
const project = 'VFT';
const usual = standardRule('VFT', [
	{ code: 'MW', name: 'Marine works' },
	{ code: 'AR', name: 'Architecture' }
]);
/** The same without zone and level. */
const short = {
	...usual,
	separator: '.',
	parts: usual.parts
		.filter((part) => !['zone', 'level'].includes(part.key))
		.map((part) => (part.values ? { ...part, pattern: null } : part))
};
const rule = async () => (await world.read('ines', projectFrame, { project })).project.numbering;
const newest = async () => (await world.read('ines', activity, { project })).events[0]!;
const says = async () => {
	const words = { day: String, moment: String };
	return eventText(await newest(), words);
};

beforeAll(async () => {
	world = await TestWorld.open();
});
afterAll(() => world.close());

describe('how documents are numbered', () => {
	it('is tried without changing anything, and names what would not fit', async () => {
		const { number } = await world.add();
		const before = await rule();
		const tried = await world.act('ines', changeNumbering, { project, rule: short, trial: true });
		expect(tried).toMatchObject({ numbers: 1, misfits: 1 });
		expect(tried.named).toEqual([{ number, why: expect.stringContaining('4 parts') }]);
		expect(await rule()).toEqual(before);
		expect((await newest()).kind).not.toBe('project.numbering-changed');
	});

	it('is changed with what it was in the trail; documents keep their numbers, new ones follow it', async () => {
		const { id } = await world.add();
		expect(await world.act('ines', changeNumbering, { project, rule: short })).toMatchObject({ misfits: 2 });
		expect(await rule()).toEqual(short);
		expect(await says()).toBe(
			'changed how documents are numbered, from VFT-MW-AA-00-DR-0001 to VFT.MW.DR.0001'
		);
		expect((await newest()).details).toMatchObject({ rule: short });
		const upload = await world.send('oke', 'a sheet');
		const add = (number: string) =>
			world.act('oke', addDocument, { folder: world.folder, upload, number, title: 'Sheet' });
		expect((await refused(add('VFT-MW-LS-00-DR-0777'))).code).toBe('invalid');
		await add('VFT.MW.DR.0777');
		await world.revise(id);
		await world.act('ines', changeNumbering, { project, rule: usual });
	});

	it('is refused when it cannot be, and to everybody but controllers', async () => {
		const cannot = {
			...short,
			parts: [{ ...short.parts[0]!, values: null, pattern: '(a+)+$' }, short.parts.at(-1)!]
		};
		expect((await refused(world.act('ines', changeNumbering, { project, rule: cannot }))).sentence).toMatch(
			/which signs/
		);
		expect((await refused(world.act('oke', changeNumbering, { project, rule: short }))).code).toBe(
			'needs-level'
		);
	});
});

describe('settings', () => {
	it('are changed with what they were before in the trail', async () => {
		await world.act('ines', changeSettings, {
			project,
			retentionDays: 90,
			lockLimitDays: 3,
			keepPosition: true
		});
		expect((await newest()).details).toMatchObject({
			retentionDays: 90,
			lockLimitDays: 3,
			before: { retentionDays: 60, lockLimitDays: 5 }
		});
		expect(await says()).toBe(
			'changed how many days locks last from 5 to 3, for how many days removed things can be restored from 60 to 90'
		);
	});
});
