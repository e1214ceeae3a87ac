import type { Point } from './curves';
import type { Group } from './read';

/** What a leader of the newer kind (MULTILEADER) shows. */
export interface MultiLeader {
	/** From each arrow to the elbow beside the text. */
	lines: Point[][];
	text: string;
	at: Point;
	height: number;
	/** Radians. */
	turn: number;
}

/**
 * Reads lines and text of a leader from the nested groups of its context data (DXF reference, MLEADER): 300 to 301 the
 * context, 302 to 303 a leader in it, 304 to 305 a line in that; 304 in the context itself is the text.
 */
export function readMultiLeader(groups: readonly Group[]): MultiLeader {
	const found: MultiLeader = { lines: [], text: '', at: [0, 0], height: 0, turn: 0 };
	let within: 'nothing' | 'context' | 'leader' | 'line' = 'nothing';
	let lines: Point[][] = [];
	let elbow: Point = [0, 0];
	for (const [code, raw] of groups) {
		const value = raw.trim();
		const n = Number(value);
		if (code === 300 && value === 'CONTEXT_DATA{') within = 'context';
		else if (code === 302 && value === 'LEADER{') within = 'leader';
		else if (code === 304 && value === 'LEADER_LINE{') {
			within = 'line';
			lines.push([]);
		} else if (within === 'line') {
			if (code === 305) within = 'leader';
			else if (code === 10) lines.at(-1)!.push([n, 0]);
			else if (code === 20 && lines.at(-1)!.length) lines.at(-1)!.at(-1)![1] = n;
		} else if (within === 'leader') {
			if (code === 10) elbow = [n, elbow[1]];
			else if (code === 20) elbow = [elbow[0], n];
			else if (code === 303) {
				found.lines.push(...lines.map((line) => [...line, elbow]));
				lines = [];
				within = 'context';
			}
		} else if (within === 'context') {
			if (code === 301) within = 'nothing';
			else if (code === 12) found.at = [n, found.at[1]];
			else if (code === 22) found.at = [found.at[0], n];
			else if (code === 41) found.height = n;
			else if (code === 42) found.turn = n;
			else if (code === 304) found.text = raw;
		}
	}
	return found;
}
