import type { NumberingRule } from '../../core/numbering/numbering';
import { patternOf, settled, signsOf, type PartSigns } from '../../core/numbering/rule';

/** A part of a number as it is written in a form. */
export interface PartDraft {
	key: string;
	label: string;
	/** From a list of codes, or so many signs of a sort. */
	from: 'codes' | PartSigns;
	many: number;
	/** One code a line: the code, then what it stands for. */
	codes: string;
}

/** The parts before the serial, as they are written in a form. */
export const draftOf = (rule: NumberingRule): PartDraft[] =>
	rule.parts.slice(0, -1).map(({ key, label, values, pattern }) => {
		const made = signsOf(pattern);
		return {
			key,
			label,
			from: values ? 'codes' : (made?.signs ?? 'either'),
			many: made?.many ?? 2,
			codes: (values ?? []).map(({ code, name }) => `${code} ${name}`.trim()).join('\n')
		};
	});

/** The rule that a form says. */
export const ruleOf = (parts: readonly PartDraft[], separator: string, serialDigits: number): NumberingRule =>
	settled({
		separator,
		serialDigits,
		parts: [
			...parts.map(({ key, label, from, many, codes }) => ({
				key,
				label: label.trim(),
				values:
					from === 'codes'
						? codes
								.split('\n')
								.map((line) => line.trim())
								.filter(Boolean)
								.map((line) => {
									const [, code = '', name = ''] = /^([^\s,;]+)[\s,;]*(.*)$/.exec(line) ?? [];
									return { code, name: name.trim() };
								})
						: null,
				pattern: from === 'codes' ? null : patternOf(from, many)
			})),
			{ key: 'serial', label: 'Serial', values: null, pattern: null }
		]
	});

/** A key for a part that is new, from what it is called; no other part has it. */
export function keyFor(label: string, taken: readonly string[]): string {
	const plain =
		label
			.toLowerCase()
			.replace(/[^a-z0-9]+/g, '-')
			.replace(/^-|-$/g, '') || 'part';
	for (let n = 1; ; n++) {
		const key = n === 1 ? plain : `${plain}-${n}`;
		if (key !== 'serial' && !taken.includes(key)) return key;
	}
}
