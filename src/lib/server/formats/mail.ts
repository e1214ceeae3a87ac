/** Mails that were saved as files (EML: RFC 5322 and MIME; MSG: MS-OXMSG). Runs in the format workers. */
import { readFile } from 'node:fs/promises';
import { EML } from '../../core/files/file-kinds';
import type { ShownMail } from '../../core/files/shown';

/** Mails of more bytes are kept and downloaded, not read. */
export const MOST_MAIL_BYTES = 150_000_000;
/** Most attachments that are listed. */
const MOST_ATTACHMENTS = 500;

/** A file that came with a mail. */
interface Attached {
	name: string;
	bytes: Uint8Array;
}

interface ReadMail {
	head: ShownMail['head'];
	sent: string | null;
	/** One of the two; HTML has still to be cleaned. */
	html: string | null;
	text: string;
	attachments: Attached[];
}

/** What a mail says and which files came with it, as it is shown. Throws when it is damaged. */
export async function shownMail(path: string, mediaType: string, size: number): Promise<ShownMail> {
	const { head, sent, html, text, attachments } = await read(path, mediaType, size);
	return {
		kind: 'mail',
		head,
		sent,
		html: html ?? paragraphs(text),
		attachments: attachments.map(({ name, bytes }) => ({ name, size: bytes.byteLength }))
	};
}

/** One of the files that came with a mail, by its name; null when there is none. */
export async function attachment(
	path: string,
	mediaType: string,
	size: number,
	name: string
): Promise<Uint8Array | null> {
	const { attachments } = await read(path, mediaType, size);
	return attachments.find((one) => one.name === name)?.bytes ?? null;
}

/**
 * The words of a mail: its head, and what it says. Those of its attachments are not its own.
 * @param plain takes the tags out of HTML
 */
export async function writtenInMail(
	path: string,
	mediaType: string,
	size: number,
	plain: (html: string) => string
): Promise<string> {
	const { head, html, text, attachments } = await read(path, mediaType, size);
	return [
		...head.map(({ value }) => value),
		text || plain(html ?? ''),
		...attachments.map(({ name }) => name)
	].join('\n');
}

async function read(path: string, mediaType: string, size: number): Promise<ReadMail> {
	if (size > MOST_MAIL_BYTES) throw new Error('The mail is too large to open.');
	const bytes = await readFile(path);
	const mail = mediaType === EML ? await readEml(bytes) : await readMsg(bytes);
	return { ...mail, attachments: named(mail.attachments.slice(0, MOST_ATTACHMENTS)) };
}

/** Attachments each with a name of its own, that no path can be smuggled in with. */
function named(attachments: Attached[]): Attached[] {
	const taken = new Set<string>();
	return attachments.map(({ name, bytes }, i) => {
		const plain = name.split(/[\\/]/).at(-1)!.trim() || `attachment-${i + 1}`;
		let own = plain;
		for (let n = 2; taken.has(own); n++) own = plain.replace(/(\.[^.]*)?$/, ` (${n})$1`);
		taken.add(own);
		return { name: own, bytes };
	});
}

const lines = (head: [string, string | undefined][]): ReadMail['head'] =>
	head.flatMap(([label, value]) => (value?.trim() ? [{ label, value: value.trim() }] : []));

async function readEml(bytes: Uint8Array): Promise<ReadMail> {
	const { default: PostalMime } = await import('postal-mime');
	const mail = await PostalMime.parse(bytes, { attachmentEncoding: 'arraybuffer' });
	type People = typeof mail.to;
	const people = (list: People) =>
		(list ?? [])
			.flatMap((one) => ('group' in one && one.group ? one.group : [one]))
			.map(({ name, address }) => (name && address ? `${name} <${address}>` : name || (address ?? '')))
			.join(', ');
	return {
		head: lines([
			['Subject', mail.subject],
			['From', people(mail.from ? [mail.from] : [])],
			['To', people(mail.to)],
			['Copy to', people(mail.cc)]
		]),
		sent: moment(mail.date),
		html: mail.html ?? null,
		text: mail.text ?? '',
		attachments: mail.attachments.map(({ filename, content }) => ({
			name: filename ?? '',
			bytes: typeof content === 'string' ? new TextEncoder().encode(content) : new Uint8Array(content)
		}))
	};
}

async function readMsg(bytes: Uint8Array): Promise<ReadMail> {
	const { default: reader } = await import('@kenjiuno/msgreader');
	// Bundlers and Node.js disagree on what the module's default is.
	const MsgReader = 'default' in reader ? (reader as unknown as { default: typeof reader }).default : reader;
	const msg = new MsgReader(Uint8Array.from(bytes).buffer);
	const mail = msg.getFileData();
	if (mail.error) throw new Error(mail.error);
	const people = (kind: 'to' | 'cc') =>
		(mail.recipients ?? [])
			.filter((one) => (one.recipType ?? 'to') === kind)
			.map(({ name, smtpAddress, email }) => written(name, smtpAddress ?? email))
			.join(', ');
	return {
		head: lines([
			['Subject', mail.subject],
			['From', written(mail.senderName, mail.senderSmtpAddress ?? mail.senderEmail)],
			['To', people('to')],
			['Copy to', people('cc')]
		]),
		sent: moment(mail.messageDeliveryTime ?? mail.clientSubmitTime),
		html: mail.html ? new TextDecoder().decode(mail.html) : (mail.bodyHtml ?? null),
		text: mail.body ?? '',
		attachments: (mail.attachments ?? []).map((one) => {
			const { fileName, content } = msg.getAttachment(one);
			return { name: fileName || (one.fileName ?? ''), bytes: content };
		})
	};
}

/** A moment as programs exchange it, or null for what is none. */
const moment = (said: string | undefined) => {
	const at = new Date(said ?? '');
	return Number.isNaN(at.getTime()) ? null : at.toISOString();
};

const written = (name: string | undefined, address: string | undefined) =>
	name && address && name !== address ? `${name} <${address}>` : name || (address ?? '');

const paragraphs = (text: string) =>
	text
		.split(/\r?\n/)
		.map((line) => `<p>${line.replace(/[&<>"]/g, (c) => `&#${c.charCodeAt(0)};`) || '&#160;'}</p>`)
		.join('');
