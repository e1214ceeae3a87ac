import { PURPOSE_LABEL, PURPOSES, type Purpose } from '../revisions/revisions';

/** A step that deliverables pass, as data of the project (G1): its first issue for that purpose meets it. */
export interface Stage {
	/** Short and lasting: plans point at it. */
	key: string;
	name: string;
	purpose: Purpose;
}

/** The stages of a project that never said its own. */
export const USUAL_STAGES: readonly Stage[] = (
	['comment', 'approval', 'construction', 'as-built'] as const
).map((purpose) => ({ key: purpose, name: PURPOSE_LABEL[purpose], purpose }));

/** Most stages of a project: each purpose meets one. */
export const MOST_STAGES = PURPOSES.length;

/** The stages of a project, in the order in which they are passed. */
export const stagesOf = ({ stages }: { stages?: Stage[] }): readonly Stage[] => stages ?? USUAL_STAGES;

/**
 * What is wrong with the stages of a project, in a sentence; null when they can be used. A purpose meets one stage only,
 * for its first issue could not meet two.
 */
export function checkStages(stages: readonly Stage[]): string | null {
	if (!stages.length) return 'A register has at least one stage.';
	if (stages.some((one) => !one.name.trim())) return 'Every stage needs a name.';
	const twice = <T>(values: T[]) => values.find((value, i) => values.indexOf(value) !== i);
	const name = twice(stages.map((one) => one.name.trim().toLowerCase()));
	if (name !== undefined) return `Two stages are called “${name}”.`;
	if (twice(stages.map((one) => one.key)) !== undefined) return 'Two stages have the same key.';
	const purpose = twice(stages.map((one) => one.purpose));
	return purpose === undefined
		? null
		: `Two stages are met by an issue ${PURPOSE_LABEL[purpose].toLowerCase()}. Each purpose meets one stage.`;
}
