/** The kinds of thing a person is told, in the order they choose about them. */
export const NOTICE_KINDS = [
	'access-given',
	'lock-came',
	'lock-stale',
	'lock-asked',
	'lock-broken',
	'lock-free',
	'side-version',
	'remark-mentioned',
	'remark-assigned',
	'remark-answered',
	'hatch-arrival',
	'approval-asked',
	'release-answered',
	'release-overdue'
] as const;
export type NoticeKind = (typeof NOTICE_KINDS)[number];

/** How a kind of notice is mailed; in the application it always shows. */
export const NOTICE_CHOICES = ['once', 'digest', 'never'] as const;
export type NoticeChoice = (typeof NOTICE_CHOICES)[number];

export const NOTICE_LABEL: Record<NoticeKind, string> = {
	'access-given': 'Somebody gave you access',
	'lock-came': 'A lock came to you from somebody else',
	'lock-stale': 'Something is in hand past its end',
	'lock-asked': 'Somebody asks for what you have in hand',
	'lock-broken': 'A lock of yours was broken',
	'lock-free': 'What you wait for is free',
	'side-version': 'Something was handed in beside what you work on',
	'remark-mentioned': 'You are mentioned in a remark',
	'remark-assigned': 'A remark is given to you to settle',
	'remark-answered': 'A remark that you took part in goes on',
	'hatch-arrival': 'Files came in through a hatch',
	'approval-asked': 'Your approval is asked, or a release was sent back to you',
	'release-answered': 'The client confirmed receipt or gave verdicts',
	'release-overdue': 'The client’s reply is overdue'
};

export const CHOICE_LABEL: Record<NoticeChoice, string> = {
	once: 'by mail at once',
	digest: 'in one mail a day',
	never: 'no mail'
};

/** What holds where a person has not chosen: at once what waits for them, otherwise once a day. */
export const DEFAULT_CHOICE: Record<NoticeKind, NoticeChoice> = {
	'access-given': 'once',
	'lock-came': 'once',
	'lock-stale': 'once',
	'lock-asked': 'once',
	'lock-broken': 'once',
	'lock-free': 'once',
	'side-version': 'once',
	'remark-mentioned': 'once',
	'remark-assigned': 'once',
	'remark-answered': 'digest',
	'hatch-arrival': 'digest',
	'approval-asked': 'once',
	'release-answered': 'once',
	'release-overdue': 'digest'
};
