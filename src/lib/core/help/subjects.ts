/** One subject of “How Cupboard works”: a screen of it, for somebody on the first day. */
export interface Subject {
	id: string;
	title: string;
	/** What it is about, in one or two sentences. */
	lead: string;
	/** How it is done, in its order. */
	steps: readonly string[];
	/** What is good to know beside it. */
	know: readonly string[];
	/** The name of its picture, taken in the demo. */
	picture?: string;
	/** Where in the project it is done. */
	goes?: { word: string; path: string };
}

/** The subjects in the order in which somebody new meets them. */
export const SUBJECTS: readonly Subject[] = [
	{
		id: 'first-day',
		title: 'The first day',
		lead: 'Cupboard holds the drawings and documents of a project, says who works on what, and proves what went to the client.',
		steps: [
			'Open Today. What waits for you stands there, each line with what you can do about it.',
			'Open Shelves. A shelf belongs to a department; a box on it is a folder.',
			'Choose a document in a folder. The title block below tells what it is; press Enter to open it.',
			'Press ? on any screen to see its keys.'
		],
		know: [
			'You see only what you may look at. What is not there for you may still be there for others.',
			'Nothing that somebody wrote is ever lost: what is removed can be restored, and every version stays.'
		],
		picture: 'today',
		goes: { word: 'Open Today', path: 'today' }
	},
	{
		id: 'finding',
		title: 'Find a document',
		lead: 'By its number or a part of it, by words of its title, or by words that are written in it.',
		steps: [
			'Press / and type two characters or more.',
			'The best fit stands first. A part of a number is enough: 0103 finds every number with it.',
			'Words are found in PDFs, drawings, texts and tables, too; the line below the title shows where.'
		],
		know: [
			'A typing error is forgiven when nothing fits as it was typed.',
			'Press B on a document to keep it at hand; it then stands under Today.',
			'References, beside a document, say which documents it names and which name it; a picture shows them two steps far.'
		],
		goes: { word: 'Open Find', path: 'find' }
	},
	{
		id: 'in-hand',
		title: 'Lock, work, hand in',
		lead: 'A document that somebody has locked to work on is in hand. The others see who has it, since when and what for, and go on reading the last version.',
		steps: [
			'Open the document and press Lock (L). Say what for, and until when.',
			'Download it and work on it with your own program.',
			'Press Hand in (H), choose the file and write what changed. The lock ends, and the others see the new version at once.',
			'To show what you have without ending, hand in and keep the lock.'
		],
		know: [
			'If somebody else has it, ask for it, or have yourself told when it is free.',
			'A lock past its end is stale: its holder is reminded, then the lead. Whoever has Manage may break it, with a reason.',
			'An old file never buries a newer one: you are told what came since, and choose where yours goes.'
		],
		picture: 'document',
		goes: { word: 'See what is in hand', path: 'in-hand' }
	},
	{
		id: 'desk',
		title: 'Your desk',
		lead: 'A place of your own, for what is not ready for others. Nobody else sees what lies on it, document controllers neither.',
		steps: [
			'Open Desk, under Today, and make your desk.',
			'Add files, or begin a text or a schedule, as in any folder.',
			'When it is ready, tick it and choose Move, to the shelf where others find it.'
		],
		know: [
			'What others opened or worked on stays where they find it; a copy of it can lie on your desk.',
			'Nothing goes out from a desk: no pass, no release, and the register does not count it.',
			'When somebody leaves, their desk becomes a shelf that document control looks after.'
		],
		goes: { word: 'Open your desk', path: 'desk' }
	},
	{
		id: 'revisions',
		title: 'Versions and revisions',
		lead: 'Every hand-in is a version that stays. Working saves are numbered under the revision that is being prepared: P03.1, P03.2. Issuing makes P03.',
		steps: [
			'Open a document; the rail at the bottom shows all its versions. Squares are issued, circles are working saves.',
			'The tab Versions beside it says who made each and what changed.',
			'Open, download, compare or restore any of them from its line.'
		],
		know: [
			'Restoring makes a new version with the old content. What came between stays.',
			'P is for what is preliminary, C for what is contractual; the project may have others.'
		]
	},
	{
		id: 'comparing',
		title: 'Compare two versions',
		lead: 'Sheets are laid over each other, texts and tables are compared by words and cells.',
		steps: [
			'On a document, drag the two tabs of the rail to the versions you want, and press Compare (C).',
			'Go from one change to the next with [ and ].',
			'Swipe, overlay or look at them side by side.'
		],
		know: [
			'Two documents are compared by ticking both in a folder and pressing C.',
			'What moved by less than a hair can be tolerated.'
		],
		picture: 'compare'
	},
	{
		id: 'remarks',
		title: 'Remarks and marking up',
		lead: 'A remark stands at a place on a sheet, a passage, a cell, or on the whole document, until somebody settles it.',
		steps: [
			'Beside the document press On a place and click the sheet; or select words and press On the selected words.',
			'Write what you mean. With @ you name somebody, who is told.',
			'Give it to a person or department with a day; it then stands on their Today.',
			'Settle it with a word on how. It stays, and can be opened again.'
		],
		know: ['Mark up draws on the sheet itself: clouds, arrows, lengths, stamps. The file stays as it is.'],
		picture: 'markup',
		goes: { word: 'See your remarks', path: 'remarks' }
	},
	{
		id: 'together',
		title: 'Edit together',
		lead: 'Texts, schedules and drawings can be edited by several people at the same time, without a lock.',
		steps: [
			'In a folder choose New, and a text or schedule; or open a file and choose Edit together from its actions.',
			'Everybody with Work writes; others suggest, and you accept or reject.',
			'Hand in when it has come to a rest: that makes the next version.'
		],
		know: ['When the line is down you can go on. What you wrote waits in the browser and is sent by itself.'],
		picture: 'live-text'
	},
	{
		id: 'levels',
		title: 'Who may do what',
		lead: 'A level says how far somebody may go at a place and in all that lies in it: Drop, View, Download, Remark, Work, Organise, Manage. Each includes those before it, except Drop.',
		steps: [
			'Open Access at a shelf, folder or document.',
			'Let people in: choose them, or paste a list. The lowest level that serves is proposed.',
			'Choose a person and ask Why: the answer names what was given, by whom, and what caps it.'
		],
		know: [
			'A freeze holds everybody below Manage at Remark until it is thawed.',
			'To stop inheriting access makes a place private; nobody gets more by it.',
			'Copies that were downloaded stay where they are after access ends.'
		],
		picture: 'access'
	},
	{
		id: 'passes',
		title: 'Passes and hatches',
		lead: 'A pass is a link by which somebody without an account reaches one folder, document or release. A hatch is a link by which outsiders can only put files in, seeing nothing.',
		steps: [
			'At a folder or document choose Make a pass. Say for whom, how far and until when; ask for a password or a code.',
			'At a folder choose Open a hatch. Say what is asked for.',
			'What comes in waits under Arrivals until somebody sorts it in or refuses it.'
		],
		know: ['Under Sharing stand all links, with their last use; withdrawing one stops it at once.'],
		picture: 'passes',
		goes: { word: 'Open Sharing', path: 'passes' }
	},
	{
		id: 'register',
		title: 'The register',
		lead: 'What the project must deliver: a line for each number and title, with the days on which its stages are planned, were met and are expected.',
		steps: [
			'Add deliverables one by one, import a list, or put in the documents that nobody planned, under More.',
			'Narrow the list by the fields above it, or by a figure: late or slipping, no document yet, with the client.',
			'Press a number to see why a day is expected, and to say when it comes yourself, with a reason.',
			'Tick lines to move their planned days, or drag a planned mark.',
			'Export what is shown as a sheet, a CSV or a report. Taken in again, it changes nothing.'
		],
		know: [
			'A stage is met by the first issue for its purpose; nobody types that day.',
			'An expected day is never before today. It is the last day plus what the department usually takes, or the planned day moved by how late things are.',
			'Days count as the project works: weekends and holidays are left out.'
		],
		picture: 'register',
		goes: { word: 'Open Register', path: 'register' }
	},
	{
		id: 'releases',
		title: 'Releases to the client',
		lead: 'A release is a numbered set of documents at exact revisions, checked, approved and issued with a cover note.',
		steps: [
			'Put documents in a release from a folder, from find or from the document itself. The distribution list proposes who gets it; choose what is asked of each, which documents are theirs, and how these are listed: by number or title, in an order set by hand, in groups by department or type.',
			'Look at the checks. What stops has to be mended; what is only to be looked at goes out with a reason.',
			'Ask for approval. It goes its route step by step: whoever is named looks through it, remarks on its documents, and approves or sends it back with a reason.',
			'Issue it, by its number or by a code of your two-step sign-in, as the project asks: revisions are fixed, and each who gets it has a link of their own. Where a stamp or the marks go out on the documents, the originals stay as they are.',
			'The client sees what changed since they had it, places remarks and draws on the sheet, sends files with marks, and signs a verdict for each document. C and D come back to the department with a day, each remark at its place. Where verdicts of several differ, make one of them. The comment sheet lists what was said, and what became of it.'
		],
		know: [
			'Nobody approves what they built, unless the project lets them. A change asks every step again, and says what is another since.',
			'Who is away names a stand-in under People. Who holds what, under Releases, shows who outside has an old revision.',
			'An old link says that it is superseded, and by what. A recipient asks you for a colleague, who then answers by a link of their own. Who has an account finds what was sent to them under Releases and on Today.',
			'Package gives an issued release whole, with what proves without Cupboard which bytes were approved, sent and answered. Each cover note carries a digital signature, which readers of PDF show.'
		],
		picture: 'release',
		goes: { word: 'Open Releases', path: 'releases' }
	},
	{
		id: 'removed',
		title: 'Removed, and restored',
		lead: 'What is removed goes out of sight and can be restored for as long as the project keeps it.',
		steps: [
			'Choose Remove from the actions of a document or folder, and say why.',
			'To bring it back, open Removed, or the line in Activity that tells of it, and press Restore.'
		],
		know: [
			'It comes back where it was, with its versions, remarks, tags and access.',
			'What was ever part of an issued release is never purged.'
		],
		goes: { word: 'Open Removed', path: 'removed' }
	},
	{
		id: 'on-site',
		title: 'On site, with a phone',
		lead: 'The same Cupboard, with its ways in along the bottom.',
		steps: [
			'Photograph: choose the folder, take pictures, send. On a bad line they wait and go by themselves.',
			'Find a drawing by the last digits of its number, and hold two fingers to zoom.',
			'Remark on a place, or settle what was given to you.'
		],
		know: ['Whether photographs keep the position where they were taken is set by the project.'],
		picture: 'phone-folder',
		goes: { word: 'Photograph', path: 'photograph' }
	}
];

/** The subject of an address; none when there is no such one. */
export const subjectOf = (id: string): Subject | undefined => SUBJECTS.find((subject) => subject.id === id);

/** Subjects that speak of all the words looked for, those that are called so first. */
export function subjectsAbout(words: string): Subject[] {
	const wanted = words
		.toLowerCase()
		.split(/\s+/)
		.filter((word) => word.length > 2);
	if (!wanted.length) return [];
	const holds = (text: string) => wanted.every((word) => text.toLowerCase().includes(word));
	const said = ({ title, lead, steps, know }: Subject) => [title, lead, ...steps, ...know].join(' ');
	const named = SUBJECTS.filter(({ title }) => holds(title));
	return [...named, ...SUBJECTS.filter((subject) => !named.includes(subject) && holds(said(subject)))];
}
