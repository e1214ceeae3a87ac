/** What somebody wrote, as the end of a sentence: with one full stop, whether they wrote one or not. */
export function ended(text: string): string {
	const said = text.trim().replace(/[.\s]+$/, '');
	return /[?!…]$/.test(said) ? said : `${said}.`;
}
