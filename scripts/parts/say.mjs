/** Ends the command with a sentence that says what happened and what to do; no stack trace. */
export class Refusal extends Error {}

/** Runs a command's main function; a {@link Refusal} becomes its sentence and exit code 1. */
export async function command(main) {
	try {
		await main();
	} catch (error) {
		console.error(error instanceof Refusal ? `\n${error.message}\n` : error);
		process.exitCode = 1;
	}
}

export function step(text) {
	console.log(`· ${text}`);
}
