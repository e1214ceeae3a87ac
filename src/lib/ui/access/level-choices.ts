import { GIVEN_MEANS, levelLabel, type Given } from '../../core/access/levels';

/** Levels as they are chosen: each with what it lets somebody do. */
export const levelChoices = <L extends Given>(levels: readonly L[]) =>
	levels.map((level) => ({ value: level, label: levelLabel(level), hint: GIVEN_MEANS[level] }));
