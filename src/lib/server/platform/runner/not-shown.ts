import { Problem } from '../../../core/acts/problem';
import { releaseNumber } from '../../../core/releases';

export const notFound = () =>
	new Problem('not-found', 'There is nothing here, or nothing that you may look at.');

/**
 * Why a release is not shown to somebody. Who was told before that it waits for them learns that it is being built again
 * (`builtAgainFor`); for everybody else it does not exist (A10).
 */
export const releaseNotShown = (number: number, builtAgain: boolean): Problem =>
	builtAgain
		? new Problem(
				'not-found',
				`Release ${releaseNumber(number)} is being built again. You are asked once it is ready.`,
				{ heading: 'Back with its builder' }
			)
		: notFound();
