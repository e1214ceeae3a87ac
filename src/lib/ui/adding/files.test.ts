import { describe, expect, it } from 'vitest';
import { gatherDropped } from './files';

/** A dropped folder as browsers give it: its entries come a few at a time. */
interface Tree {
	[name: string]: Tree | string;
}
function entry(name: string, what: Tree | string): FileSystemEntry {
	if (typeof what === 'string')
		return {
			isFile: true,
			name,
			file: (done: (file: File) => void) => done(new File([what], name))
		} as never;
	const parts = Object.entries(what).map(([one, inner]) => entry(one, inner));
	return {
		isFile: false,
		name,
		createReader: () => ({ readEntries: (done: (some: unknown[]) => void) => done(parts.splice(0, 2)) })
	} as never;
}
const drop = (tree: Tree) =>
	gatherDropped({
		items: Object.entries(tree).map(([name, what]) => ({ webkitGetAsEntry: () => entry(name, what) }))
	} as never);

describe('what is dropped', () => {
	it('comes with its folders, those that are empty by themselves', async () => {
		const { files, empty } = await drop({
			'a.txt': 'a',
			Quay: {
				Sections: { '1.dxf': '1', '2.dxf': '2', '3.dxf': '3' },
				'As built': {},
				Notes: { '.DS_Store': 'x', Old: {} },
				Litter: { 'Thumbs.db': 'x' }
			}
		});
		expect(files.map((f) => [...f.folders, f.file.name].join('/'))).toEqual([
			'a.txt',
			'Quay/Sections/1.dxf',
			'Quay/Sections/2.dxf',
			'Quay/Sections/3.dxf'
		]);
		expect(empty.map((way) => way.join('/'))).toEqual(['Quay/As built', 'Quay/Notes/Old', 'Quay/Litter']);
	});
});
