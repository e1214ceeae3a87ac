import { standardRule, type NumberingRule } from './numbering';

/** Parts of the standard rule that each example keeps; null keeps all. */
const KEPT: readonly { key: string; label: string; parts: readonly string[] | null }[] = [
	{ key: 'zones', label: 'Project, department, zone, level, type, serial', parts: null },
	{ key: 'types', label: 'Project, department, type, serial', parts: ['project', 'department', 'type'] },
	{ key: 'short', label: 'Department, serial', parts: ['department'] }
];

/**
 * Rules to begin from, the fullest first; a project begins with that one.
 * @param code of the project
 * @param departments with their codes
 */
export function exampleRules(
	code: string,
	departments: readonly { code: string; name: string }[]
): { key: string; label: string; rule: NumberingRule }[] {
	return KEPT.map(({ key, label, parts }) => {
		const whole = standardRule(code, [...departments]);
		return {
			key,
			label,
			rule: {
				...whole,
				parts: whole.parts.filter((part) => !parts || part.key === 'serial' || parts.includes(part.key))
			}
		};
	});
}
