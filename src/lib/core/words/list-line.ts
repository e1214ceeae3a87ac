/** A mail address within a text. */
export const MAIL = /[^\s<>,;:"']+@[^\s<>,;:"']+\.[^\s<>,;:"']+/;

/** The mail address that a text is, in small letters, or null. */
export function mailIn(text: string): string | null {
	const found = MAIL.exec(text.trim())?.[0];
	return found === text.trim() ? found.toLowerCase() : null;
}

/** Cuts a line of a typed or pasted list into its parts at tabs, semicolons or commas; a comma inside quotes stays. */
export function partsOf(text: string): string[] {
	const separator = text.includes('\t') ? '\t' : text.includes(';') ? ';' : ',';
	const parts: string[] = [];
	let quoted = false;
	let current = '';
	for (const char of text) {
		if (char === '"') quoted = !quoted;
		else if (char === separator && !quoted) {
			parts.push(current);
			current = '';
		} else current += char;
	}
	parts.push(current);
	return parts.map((part) => part.trim()).filter(Boolean);
}

/** What a text says beside its mail address: the name in `Name <mail>`. */
export function withoutMail(text: string): string {
	return text
		.replace(MAIL, '')
		.replace(/[<>"',;]/g, ' ')
		.replace(/\s+/g, ' ')
		.trim();
}

/** A readable name from a mail address: `b.hollin@…` is "B Hollin". */
export function nameFromMail(mail: string): string {
	return mail
		.split('@')[0]!
		.split(/[._-]+/)
		.filter(Boolean)
		.map((word) => word[0]!.toUpperCase() + word.slice(1))
		.join(' ');
}
