/** Mails that were saved as files (EML: RFC 5322 and MIME; MSG: MS-OXMSG). Runs in the format workers. */
import { readFile } from 'node:fs/promises';
import { EML } from '../../../core/files/kinds';
import type { ShownMail } from '../../../core/files/shown';
import { KEPT, type Reader, type StoredFile } from './reader';
import { paragraphs, withoutTags } from './words';

/** Mails of more bytes are kept and downloaded, not read. */
const MOST_MAIL_BYTES = 150_000_000;
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

/** What it says and which files came with it. */
async function shown(file: StoredFile): Promise<ShownMail> {
	const { head, sent, html, text, attachments } = await read(file);
	return {
		kind: 'mail',
		head,
		sent,
		html: html ?? paragraphs(text.split(/\r?\n/)),
		attachments: attachments.map(({ name, bytes }) => ({ name, size: bytes.byteLength }))
	};
}

export const mail: Reader = {
	called: 'file',
	async inspect(file) {
		if (file.size > MOST_MAIL_BYTES) return KEPT;
		await shown(file);
		return {};
	},
	shown,
	/** Its head, and what it says. The words of its attachments are not its own. */
	async written(file) {
		const { head, html, text, attachments } = await read(file);
		return [
			...head.map(({ value }) => value),
			text || withoutTags(html ?? ''),
			...attachments.map(({ name }) => name)
		].join('\n');
	}
};

/** One of the files that came with a mail, by its name; null when there is none. */
export async function attachment(file: StoredFile, name: string): Promise<Uint8Array | null> {
	const { attachments } = await read(file);
	return attachments.find((one) => one.name === name)?.bytes ?? null;
}

async function read({ path, mediaType, size }: StoredFile): Promise<ReadMail> {
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
