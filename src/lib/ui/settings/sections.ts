/** The parts of a project's settings, by their address. */
export const SECTIONS = [
	{ id: 'numbers', word: 'Numbers and revisions' },
	{ id: 'access', word: 'Access' },
	{ id: 'register', word: 'Register' },
	{ id: 'releases', word: 'Releases' },
	{ id: 'time', word: 'Working days and limits' },
	{ id: 'files', word: 'Files' },
	{ id: 'sheets', word: 'Title block' },
	{ id: 'stamps', word: 'Stamps' },
	{ id: 'mail', word: 'Mails and reminders' }
] as const;
