import { toast as shown } from 'svelte-sonner';

/** How long something stays that offers a button, in milliseconds. */
const TIME_TO_PRESS = 10_000;
/** How long a sentence stays at least, and for each of its letters: as long as it takes to read. */
const TIME_TO_READ = { least: 4_000, letter: 70 };

interface More {
	/** Takes back what was done. */
	takeBack?: () => unknown;
	/** Another button. */
	button?: { word: string; act: () => unknown };
	/** Stays until it is put away: nobody may have been looking. */
	stays?: boolean;
}

function options(sentence: string, { takeBack, button, stays }: More) {
	const offered = takeBack ? { word: 'Take back', act: takeBack } : button;
	return {
		...(offered ? { action: { label: offered.word, onClick: () => void offered.act() } } : {}),
		duration: stays
			? Infinity
			: Math.max(offered ? TIME_TO_PRESS : TIME_TO_READ.least, sentence.length * TIME_TO_READ.letter)
	};
}

/** Says something by the way; `success`: that something is done; `error`: what went wrong. */
export const toast = Object.assign(
	(sentence: string, more: More = {}) => void shown(sentence, options(sentence, more)),
	{
		success: (sentence: string, more: More = {}) => void shown.success(sentence, options(sentence, more)),
		error: (sentence: string, more: More = {}) => void shown.error(sentence, options(sentence, more))
	}
);
