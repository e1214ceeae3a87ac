import { cupboard } from '../../client/cupboard';

/** So many documents are asked about at a time, the most that the view gives. */
const AT_ONCE = 1_000;

/**
 * Who outside holds an issued revision of which document of a release, however many it holds.
 * @returns their names by the document's id; raises `CallError` where whoever asks does not control the project
 */
export async function heldOf(project: string, release: string): Promise<Map<string, string[]>> {
	const held = new Map<string, string[]>();
	for (let skip = 0, total = 1; skip < total; skip += AT_ONCE) {
		const page = await cupboard.holders({ project, release, skip, limit: AT_ONCE });
		total = page.total;
		for (const row of page.rows)
			held.set(
				row.document,
				row.held.map(({ holder }) => page.holders.find((one) => one.key === holder)!.name)
			);
	}
	return held;
}
