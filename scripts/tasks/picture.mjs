/**
 * Draws the house as it is: floors with their rooms, and how many imports go from floor to floor, as depcruise finds
 * them. Writes docs/house.svg; an import that goes up ends it with an error, and nothing is drawn.
 */
import { spawnSync } from 'node:child_process';
import { readdirSync, writeFileSync } from 'node:fs';

/** From the top down; those of one row do not know each other, but for the one way below. */
const ROWS = [['routes'], ['ui', 'server'], ['client', 'workers', 'formats'], ['contract'], ['core']];
/** Heavy reading in the browser is done by its workers. */
const SIDEWAYS = 'workers formats';
const WIDE = 1120;
const PAD = 16;
const rowOf = (floor) => ROWS.findIndex((row) => row.includes(floor));
const floorOf = (path) =>
	/^(?:src\/routes)/.test(path) ? 'routes' : (/^(?:src\/lib|\$lib)\/(\w+)/.exec(path)?.[1] ?? null);

const { stdout } = spawnSync(
	'npx',
	['depcruise', '--config', '.dependency-cruiser.cjs', 'src', '--output-type', 'json'],
	{ encoding: 'utf8', maxBuffer: 512 * 1024 * 1024 }
);
const ways = new Map();
const faults = [];
for (const { source, dependencies } of JSON.parse(stdout).modules) {
	const from = floorOf(source);
	if (!from || /\.test\.ts$/.test(source)) continue;
	for (const { resolved, module } of dependencies) {
		const to = floorOf(resolved) ?? floorOf(module);
		if (!to || to === from || rowOf(to) < 0) continue;
		ways.set(`${from} ${to}`, (ways.get(`${from} ${to}`) ?? 0) + 1);
		if (rowOf(to) <= rowOf(from) && `${from} ${to}` !== SIDEWAYS) faults.push(`${source} → ${resolved}`);
	}
}
if (faults.length) {
	console.error(`These imports go up:\n${faults.join('\n')}`);
	process.exit(1);
}

const text = (x, y, words, more = '') => `<text x="${x}" y="${y}" ${more}>${words}</text>`;
const rooms = (floor) =>
	readdirSync(floor === 'routes' ? 'src/routes' : `src/lib/${floor}`, { withFileTypes: true })
		.filter((entry) =>
			['contract', 'client', 'workers'].includes(floor) ? entry.isFile() : entry.isDirectory()
		)
		.map(({ name }) => name.replace(/\.ts$/, ''))
		.filter((name) => !name.endsWith('.test') && name !== 'index');
const drawn = [];
let y = PAD;
for (const row of ROWS) {
	const wide = (WIDE - PAD * (row.length + 1)) / row.length;
	const boxes = row.map((floor, i) => {
		const x = PAD + i * (wide + PAD);
		const lines = [];
		let line = '';
		for (const room of rooms(floor)) {
			if ((line + room).length * 7.2 > wide - 32) {
				lines.push(line.trimEnd());
				line = '';
			}
			line += `${room}   `;
		}
		lines.push(line.trimEnd());
		const down = [...ways]
			.filter(([way]) => way.startsWith(`${floor} `))
			.sort((a, b) => b[1] - a[1])
			.map(([way, n]) => `${way.split(' ')[1]} ${n}`)
			.join(' · ');
		return { floor, x, wide, lines, down };
	});
	const tall = 46 + 18 * Math.max(...boxes.map((box) => box.lines.length)) + 22;
	for (const { floor, x, wide, lines, down } of boxes)
		drawn.push(
			`<rect x="${x}" y="${y}" width="${wide}" height="${tall}" fill="#fbfcfa" stroke="#16332c"/>`,
			text(x + 14, y + 24, floor, 'font-weight="700" font-size="15"'),
			...lines.map((words, i) => text(x + 14, y + 46 + 18 * i, words, 'xml:space="preserve" font-size="12"')),
			text(x + 14, y + tall - 12, down && `↓ ${down}`, 'fill="#0b6b53" font-size="12"')
		);
	y += tall + PAD;
}
writeFileSync(
	'docs/house.svg',
	`<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${WIDE} ${y}" width="${WIDE}" height="${y}" font-family="Archivo, Helvetica, sans-serif" fill="#1b2420">\n<title>The floors of Cupboard with their rooms, and the imports that go from floor to floor</title>\n<rect width="${WIDE}" height="${y}" fill="#e9eeea"/>\n${drawn.join('\n')}\n</svg>\n`
);
console.log('docs/house.svg is drawn; every import goes down.');
