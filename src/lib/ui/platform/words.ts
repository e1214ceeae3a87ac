import type { EventRow } from '../../core/documents/rows';
import { releaseNumber } from '../../core/releases';
import { dayOf, dayWords, dayWordsOf, plusDays, timeOf } from '../../core/time/days';
import { projectZone } from './project-day';

export { sizeText } from '../../core/files/sizes';

/** A day as `23 Nov`, with the year when it is another one; by the project's clock unless a zone is given. */
export function dayText(at: string | Date, timeZone = projectZone()): string {
	return dayWordsOf(at, timeZone, new Date());
}

/** A time of day as `09:12`. */
export function timeText(at: string | Date, timeZone = projectZone()): string {
	return timeOf(at, timeZone);
}

/** A moment as people say it: `today 09:12`, `yesterday 16:20`, else `19 Nov`. */
export function whenText(at: string | Date, timeZone = projectZone(), now = new Date()): string {
	const [day, today] = [dayOf(at, timeZone), dayOf(now, timeZone)];
	if (day === today) return `today ${timeText(at, timeZone)}`;
	if (day === plusDays(today, -1)) return `yesterday ${timeText(at, timeZone)}`;
	return dayWords(day, today);
}

/** How long ago, for less than a day; the day after that. */
export function agoText(at: string | Date, now = Date.now()): string {
	const minutes = Math.floor((now - new Date(at).getTime()) / 60_000);
	if (minutes < 1) return 'now';
	if (minutes < 60) return `${minutes} min`;
	if (minutes < 24 * 60) return `${Math.floor(minutes / 60)} h`;
	return dayText(at);
}

/** First name, for narrow places. */
export function firstName(name: string | null): string {
	return name?.split(' ')[0] ?? '';
}

export function initials(name: string): string {
	const words = name.split(/\s+/).filter(Boolean);
	return ((words[0]?.[0] ?? '') + (words.length > 1 ? words.at(-1)![0]! : '')).toUpperCase();
}

export function plural(count: number, one: string, many = one + 's'): string {
	return `${count.toLocaleString('en')} ${count === 1 ? one : many}`;
}

const KINDS: Record<string, string> = {
	'application/pdf': 'PDF',
	'image/vnd.dxf': 'DXF',
	'image/jpeg': 'JPEG',
	'image/png': 'PNG',
	'image/svg+xml': 'SVG',
	'image/webp': 'WebP',
	'text/markdown': 'Markdown',
	'text/csv': 'CSV',
	'text/plain': 'Text',
	'application/zip': 'Zip',
	'application/vnd.openxmlformats-officedocument.wordprocessingml.document': 'DOCX',
	'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet': 'XLSX',
	'application/vnd.oasis.opendocument.text': 'ODT'
};

/** Short word for a kind of file; the extension when the kind has none. */
export function kindText(mediaType: string, fileName: string): string {
	return KINDS[mediaType] ?? (/\.([A-Za-z0-9]{1,5})$/.exec(fileName)?.[1]?.toUpperCase() || 'File');
}

/** Tags that an event tells of, in words. */
function tagsOf({ details }: Pick<EventRow, 'details'>): string {
	const { tags } = details;
	return Array.isArray(tags) ? tags.join(', ') : '';
}

/** What an event says, after the name of who did it. */
export function eventText(event: Pick<EventRow, 'kind' | 'details'>): string {
	const { number, release: inRelease, documents } = event.details;
	const d = event.details as Record<string, string | undefined>;
	const doc = d.label ? `${d.number} ${d.label}` : (d.number ?? '');
	const release = typeof inRelease === 'number' ? releaseNumber(inRelease) : '';
	const about = typeof number === 'number' ? `release ${releaseNumber(number)}` : '';
	const say: Record<string, () => string> = {
		'project.made': () => `made the project ${d.name}`,
		'department.made': () => `made the department ${d.name}`,
		'person.added': () => `added ${d.name} to the project`,
		'project.settings-changed': () => 'changed the settings of the project',
		'person.invited': () => `invited ${d.name} again`,
		'person.blocked': () => `keeps ${d.name} out for the time being: ${d.reason}`,
		'person.unblocked': () => `let ${d.name} back in`,
		'person.moved-inside': () => `made ${d.name}, who was outside, a colleague`,
		'person.moved': () => `put ${d.name} from ${d.from} into ${d.to}`,
		'person.left': () => `closed ${d.name}, who left: ${d.reason}`,
		'group.made': () => `made the group ${d.name}`,
		'group.changed': () => `changed the group ${d.name}`,
		'group.ended': () => `ended the group ${d.name}`,
		'access.given': () =>
			`gave ${d.who} ${d.level} on ${d.place}${d.until ? ` until ${dayText(d.until)}` : ''}${d.before ? ` (was ${d.before})` : ''}`,
		'access.barred': () => `barred ${d.who} from ${d.place}`,
		'access.brought-in': () => `brought ${d.who} into ${d.place} at ${d.level}`,
		'access.ended': () => `ended ${d.level} for ${d.who} on ${d.place}`,
		'access.sunk': () => `lowered ${d.who}, who was brought in, from ${d.before} to ${d.level} on ${d.place}`,
		'access.tried': () => `looked at the project as ${d.who} would`,
		'place.closed': () => `closed ${d.name}`,
		'place.opened': () => `opened ${d.name} again to what was given above`,
		'place.frozen': () => `froze ${d.name}: ${d.reason}`,
		'place.thawed': () => `thawed ${d.name}`,
		'place.marked-sensitive': () =>
			event.details.sensitive ? `marked ${d.name} as sensitive` : `took the mark sensitive from ${d.name}`,
		'lock.handed-over': () => `handed the lock of ${doc} over from ${d.from} to ${d.to}`,
		'lock.extended': () => `keeps ${doc} in hand until ${d.until ? whenText(d.until) : ''}`,
		'lock.asked': () => `asked ${d.of} for ${doc}${d.note ? `: ${d.note}` : ''}`,
		'lock.broken': () => `broke the lock of ${d.holder} on ${doc}: ${d.reason}`,
		'version.set-beside': () =>
			`handed in ${doc} without the lock, kept as side version ${event.details.side}: ${d.note}`,
		'version.merged': () => `merged side version ${event.details.side} of ${d.number} as ${d.label}`,
		'version.dropped': () => `dropped side version ${event.details.side} of ${doc}: ${d.reason}`,
		'recipient.added': () => `put ${d.name}, ${d.company}, on the distribution list`,
		'shelf.made': () => `made the shelf ${d.name}`,
		'folder.made': () => `made the folder ${d.name}`,
		'folder.renamed': () => `renamed ${d.from} to ${d.to}`,
		'folder.moved': () => `moved ${d.name} to ${d.to ?? 'another folder'}`,
		'document.added': () => `added ${doc} ${d.title}`,
		'document.changed': () =>
			`changed ${doc}${d.to ? ` to ${d.to}` : ''}${d.title ? `, title “${d.title}”` : ''}${event.details.tags ? `, tags ${tagsOf(event) || 'none'}` : ''}`,
		'document.moved': () => `moved ${doc} to ${d.to ?? 'another folder'}`,
		'document.tagged': () => `tagged ${doc}: ${tagsOf(event) || 'no tags'}`,
		'document.revised': () => `issued ${doc} ${d.purpose}: ${d.reason}`,
		'document.state-changed': () => `put ${doc} from ${d.from} to ${d.to}: ${d.reason}`,
		'project.scheme-changed': () => 'changed the revision scheme of the project',
		'document.opened': () => `opened ${doc}`,
		'document.downloaded': () => `downloaded ${doc}`,
		'document.returned': () =>
			`sent ${doc} back to its department with ${d.code}, to be answered by ${d.due ? dayText(d.due) : ''}`,
		'document.issued': () => `issued ${doc} in release ${release}`,
		'version.handed-in': () => `handed in ${doc}: ${d.note}`,
		'version.saved': () => `saved ${doc} and kept the lock: ${d.note}`,
		'version.restored': () => `restored ${d.from} of ${d.number} as ${d.label}`,
		'live.begun': () => `began to work on ${doc} live`,
		'live.ended': () => `ended working on ${d.number} live; it is a file again, at ${d.label}`,
		'live.picture-added': () => `put the picture ${d.file} at the disposal of ${doc}`,
		'remark.added': () => `remarked on ${doc} (${event.details.remark}): ${d.text}`,
		'remark.answered': () => `answered remark ${event.details.remark} on ${d.number}: ${d.text}`,
		'remark.settled': () =>
			`settled remark ${event.details.remark} on ${d.number}${d.note ? `: ${d.note}` : ''}`,
		'remark.reopened': () => `opened remark ${event.details.remark} on ${d.number} again`,
		'remark.assigned': () =>
			`gave remark ${event.details.remark} on ${d.number} to ${d.to}${d.due ? `, by ${dayText(d.due)}` : ''}`,
		'live.layer-given': () => `gave the layer ${d.layer} of ${doc} from ${d.from} to ${d.to}`,
		'live.written': () => `wrote in ${d.number}, which is worked on live`,
		'marks.drawn': () => `marked up ${doc}`,
		'marks.carried': () =>
			`carried ${plural(Number(event.details.marks ?? 0), 'mark')} on ${d.number} over from ${d.from} to ${d.label}`,
		'lock.taken': () => `took ${doc} in hand${d.purpose ? ` for “${d.purpose}”` : ''}`,
		'lock.given-back': () => `gave ${doc} back without a change`,
		'lock.answered': () => `has nothing to bring to ${doc} from under the broken lock`,
		'lock.stale': () =>
			d.told === 'leads'
				? `told the leads that ${d.holder} still has ${doc} in hand`
				: `reminded ${d.holder}, who still has ${doc} in hand`,
		'place.removed': () =>
			`removed ${d.name}${d.kind !== 'document' ? ` with ${plural(Number(documents ?? 0), 'document')}` : ''}: ${d.reason}`,
		'place.restored': () => `restored ${d.name}`,
		'release.built': () => `began ${about}, ${d.title}`,
		'release.changed': () =>
			`changed ${about}${d.approver ? `: ${d.approver} decides, not ${d.approverBefore}` : ''}`,
		'release.cancelled': () => `cancelled ${about}: ${d.reason}`,
		'release.accepted': () => `lets ${d.document} go out in ${about}: ${d.sentence} ${d.reason}`,
		'release.asked': () => `asked ${d.of} to approve ${about}`,
		'release.approved': () => `approved ${about}`,
		'release.sent-back': () => `sent ${about} back: ${d.reason}`,
		'release.issued': () => `issued ${about}, ${d.title}, to ${d.to}`,
		'release.superseded': () => `superseded ${about}`,
		'pass.made': () =>
			`made a pass to ${d.place}${d.label ? ` ${d.label}` : ''} for ${d.for}, until ${d.until ? dayText(d.until) : ''}`,
		'pass.changed': () =>
			`changed the pass ${about ? `of ${about}` : `to ${d.place}`} for ${d.for}: ${event.details.changed}`,
		'pass.sent': () =>
			`sent the pass ${about ? `of ${about}` : `to ${d.place}`} for ${d.for} to ${event.details.to}`,
		'pass.opened': () => `opened the pass ${about ? `of ${about}` : `to ${d.place}`}`,
		'pass.withdrawn': () => `withdrew the pass ${about ? `of ${about}` : `to ${d.place}`}`,
		'hatch.made': () => `made the hatch ${d.title} into ${d.place}`,
		'hatch.closed': () => `closed the hatch ${d.title}`,
		'hatch.arrived': () =>
			`sent ${plural(Number(event.details.files ?? 0), 'file')} for ${d.place} through ${d.title}`,
		'hatch.checked': () => `checked ${d.file} from ${d.sender}: nothing found`,
		'hatch.unsafe': () => `found ${d.file} from ${d.sender} unsafe: ${d.fault}`,
		'hatch.looked-at': () => `looked at ${d.file} from ${d.sender}`,
		'hatch.sorted': () => `sorted ${d.file} from ${d.sender} in as ${d.number}`,
		'hatch.refused': () => `refused ${d.file} from ${d.sender}: ${d.reason}`,
		'pass.document-opened': () => `opened ${doc}${release ? ` in release ${release}` : ' through a pass'}`,
		'pass.document-downloaded': () =>
			`downloaded ${doc}${release ? ` from release ${release}` : ' through a pass'}`,
		'pass.release-downloaded': () => `downloaded the whole of ${about}`,
		'receipt.confirmed': () => `confirmed receipt of ${about}`,
		'verdict.given': () => `gave verdict ${d.code} on ${doc}${d.remark ? `: ${d.remark}` : ''}`
	};
	return say[event.kind]?.() ?? event.kind;
}

/** Words by which activity can be filtered, by the first part of an event's kind. */
export const EVENT_KINDS: Record<string, string> = {
	openings: 'Openings and downloads',
	all: 'Changes, openings and downloads',
	document: 'Documents added, changed, issued',
	version: 'Versions handed in',
	lock: 'Locks',
	live: 'Working live',
	remark: 'Remarks',
	marks: 'Markup',
	folder: 'Folders',
	access: 'Access given and ended',
	place: 'Removed, restored, closed, frozen',
	release: 'Releases',
	pass: 'Passes',
	receipt: 'Receipts',
	verdict: 'Verdicts',
	person: 'People',
	group: 'Groups',
	hatch: 'Hatches',
	shelf: 'Shelves'
};

/** When, where and by what a photograph was taken, from what its camera wrote. */
export function takenText(written: {
	Make?: string;
	Model?: string;
	DateTimeOriginal?: Date;
	latitude?: number;
	longitude?: number;
}): string {
	const { Make, Model, DateTimeOriginal: at, latitude, longitude } = written;
	const camera = [Make, Model].filter(Boolean).join(' ');
	const side = (degrees: number, positive: string, negative: string) =>
		`${Math.abs(degrees).toFixed(5)}° ${degrees < 0 ? negative : positive}`;
	return [
		at && `taken ${whenText(at.toISOString())}`,
		latitude !== undefined &&
			longitude !== undefined &&
			`at ${side(latitude, 'N', 'S')}, ${side(longitude, 'E', 'W')}`,
		camera && `with ${camera}`
	]
		.filter(Boolean)
		.join(' ');
}

/** How long something still takes, from seconds. */
export function timeLeft(seconds: number): string {
	if (seconds < 60) return `${Math.max(1, Math.round(seconds))} s left`;
	if (seconds < 3600) return `${Math.round(seconds / 60)} min left`;
	return `${(seconds / 3600).toFixed(1)} h left`;
}
