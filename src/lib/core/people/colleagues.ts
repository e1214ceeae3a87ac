/** Whether a mail address is of one of an organisation's own domains, so that its owner is a colleague (A12). */
export const isColleague = (email: string, ownDomains: readonly string[]): boolean =>
	ownDomains.includes(email.split('@')[1]?.toLowerCase() ?? '');
