import { createHash } from 'node:crypto';
import canonicalize from 'canonicalize';
import Papa from 'papaparse';
import { bagName, bagTexts, tagManifest, type BagFile } from '../../core/files/bag';
import { releaseNumber, VERDICT_LABEL, type Manifest, type Verdict } from '../../core/releases';
import type { Suitability } from '../../core/releases/suitability';
import type { Signers } from '../platform/certificate';
import { publicKeyOf } from '../platform/signing';
import { howToVerify, howToVerifyShare, VERIFY_SCRIPT } from './verify-script';

/** A file of a package: made for it, or stored content by its hash. */
export interface PackedFile extends BagFile {
	/** What was made for the package, base64; null for stored content. */
	made: string | null;
}
interface Stored {
	hash: string;
	size: number;
}

/** A signed list and its cover note. */
export interface Proof {
	manifest: Manifest;
	/** Ed25519 over the manifest's canonical JSON, base64. */
	signature: string;
	note: Stored;
}

/** What somebody who got a release has answered so far. Moments as ISO 8601 in UTC. */
interface Answered {
	name: string;
	company: string;
	proof: Proof;
	receivedAt: string | null;
	verdicts: {
		number: string;
		code: Verdict;
		remark: string;
		by: string;
		at: string;
		/** What was placed on its sheets, in the units of the sheet. */
		placed: { page: number; x: number; y: number; text: string }[];
		/** What was drawn on its sheets, as canonical JSON whose SHA-256 stands in the trail; null where nothing was. */
		drawn: string | null;
		/** Files with marks that came along; each has the number of the side version that it became. */
		files: ({ name: string; side: number } & Stored)[];
	}[];
}

/** An issued release with everything that proves it. */
export interface IssuedRelease {
	number: number;
	project: { code: string; name: string };
	title: string;
	/** What its documents may be used for. */
	suitability: Suitability;
	whole: Proof;
	documents: ({
		number: string;
		department: string;
		type: string;
		file: string;
		/** What it was made from, where it was changed on its way out; under a name of its own among these. */
		original: ({ file: string } & Stored) | null;
	} & Stored)[];
	recipients: Answered[];
	/** Verdicts that a controller made of several which differ. */
	consolidated: { number: string; code: Verdict; reason: string; by: string; at: string }[];
	/** Day on which the package is made, YYYY-MM-DD. */
	day: string;
	by: Signers;
}

const table = (head: string[], rows: (string | number)[][]): string =>
	'\ufeff' + Papa.unparse([head, ...rows], { escapeFormulae: true }) + '\r\n';
const json = (value: unknown): string => JSON.stringify(value, null, '\t') + '\n';
const made = (path: string, content: string | Buffer): PackedFile => {
	const bytes = Buffer.from(content as string);
	return {
		path,
		made: bytes.toString('base64'),
		size: bytes.byteLength,
		sha256: createHash('sha256').update(bytes).digest('hex')
	};
};
const stored = (path: string, { hash, size }: Stored): PackedFile => ({
	path,
	made: null,
	size,
	sha256: hash
});

/** A name that every file system takes, and no way into another folder. */
const fileName = (name: string) => bagName(name).replace(/[\\/:*?"<>|]/g, '-');
/** The folder of somebody who got a release, by where they stand among them. */
const folderOf = (name: string, at: number) => `${at + 1} ${fileName(name)}`;

/** What proves a list: as it was signed, its signature, and its cover note. */
function proofFiles(folder: string, number: string, { manifest, signature, note }: Proof): PackedFile[] {
	return [
		made(`${folder}manifest.json`, canonicalize(manifest)!),
		made(`${folder}manifest.sig`, Buffer.from(signature, 'base64')),
		stored(`${folder}Cover note ${number}.pdf`, note)
	];
}

/** What else is known of each document, in the words of ISO 19650-1 (container, revision, status) and its national annexes. */
function containers({ whole, documents, suitability }: IssuedRelease) {
	const listed = new Map(whole.manifest.documents.map((one) => [one.number, one]));
	return documents.map(({ number, department, type, file, hash }) => ({
		containerId: number,
		title: listed.get(number)?.title ?? '',
		revision: listed.get(number)?.revision ?? '',
		status: { code: suitability.code, description: suitability.words },
		classification: { originator: department, type },
		file: `documents/${file}`,
		sha256: hash
	}));
}

/**
 * What somebody who got a release takes away: their documents and cover note, and beside them in a folder what proves it.
 * @param files their documents under the names in which they go out
 */
export function shareFiles(
	number: number,
	files: readonly ({ name: string } & Stored)[],
	proof: Proof,
	{ key, certificate }: Signers
): PackedFile[] {
	const { pem, fingerprint } = publicKeyOf(key);
	const [list, signature, note] = proofFiles('', releaseNumber(number), proof);
	const documents = files.map((one) => stored(one.name, one));
	const sums = [...documents, note!].map((one) => `${one.sha256}  ${one.path}\n`).join('');
	return [
		...documents,
		note!,
		...[list!, signature!].map((one) => ({ ...one, path: `proof/${one.path}` })),
		made('proof/public-key.pem', pem),
		made('proof/certificate.pem', certificate.pem),
		made('sha256sums.txt', sums),
		made('how-to-verify.txt', howToVerifyShare(fingerprint, certificate.fingerprint))
	];
}

/**
 * Everything of an issued release as an open package (T7): a bag (RFC 8493) of the documents as they were sent, the cover
 * notes, the signed lists, what was answered so far, and what it takes to prove it all without Cupboard.
 * @returns its files in the order in which they are written
 */
export function releasePackage(about: IssuedRelease): PackedFile[] {
	const { whole, recipients, documents, consolidated, project } = about;
	const number = releaseNumber(about.number);
	const { key, certificate } = about.by;
	const { pem, fingerprint } = publicKeyOf(key);
	const files = documents.map((one) => ({ ...one, file: bagName(one.file) }));
	const several = recipients.length > 1;
	const answers = recipients.map((one, i) => ({
		...one,
		verdicts: one.verdicts.map((verdict) => ({
			...verdict,
			drawn:
				verdict.drawn === null
					? null
					: made(
							`answers/${folderOf(one.name, i)}/${fileName(`${verdict.number} drawn marks.json`)}`,
							verdict.drawn
						),
			files: verdict.files.map(({ name, side, ...file }) => ({
				...file,
				path: `answers/${folderOf(one.name, i)}/${fileName(`${verdict.number} side version ${side} ${name}`)}`
			}))
		}))
	}));
	const revisionOf = new Map(whole.manifest.documents.map((one) => [one.number, one.revision]));
	const payload = [
		...files.map((one) => stored(`data/documents/${one.file}`, one)),
		...files.flatMap(({ original }) =>
			original ? stored(`data/originals/${bagName(original.file)}`, original) : []
		),
		...proofFiles('data/proof/', number, whole),
		...(several
			? recipients.flatMap(({ name, proof }, i) =>
					proofFiles(`data/proof/${folderOf(name, i)}/`, number, proof)
				)
			: []),
		...answers.flatMap(({ verdicts }) =>
			verdicts.flatMap(({ drawn, files: sent }) => [
				...(drawn ? [{ ...drawn, path: `data/${drawn.path}` }] : []),
				...sent.map((one) => stored(`data/${one.path}`, one))
			])
		),
		made('data/proof/public-key.pem', pem),
		made('data/proof/certificate.pem', certificate.pem),
		made(
			'data/manifest.csv',
			table(
				[
					'Number',
					'Title',
					'Revision',
					'File',
					'Bytes',
					'SHA-256',
					'Left changed',
					'SHA-256 of what it was made from',
					'Group'
				],
				whole.manifest.documents.map((one) => [
					one.number,
					one.title,
					one.revision,
					one.file,
					one.size,
					one.sha256,
					one.madeFrom?.how ?? '',
					one.madeFrom?.sha256 ?? '',
					one.group ?? ''
				])
			)
		),
		made(
			'data/verdicts.csv',
			table(
				[
					'Number',
					'Revision',
					'Verdict',
					'In words',
					'Remark or reason',
					'By',
					'Company',
					'At',
					'Drawn marks',
					'Files with marks'
				],
				[
					...answers.flatMap(({ company, verdicts }) =>
						verdicts.map((one) => [
							one.number,
							revisionOf.get(one.number) ?? '',
							one.code,
							VERDICT_LABEL[one.code],
							one.remark,
							one.by,
							company,
							one.at,
							one.drawn?.path ?? '',
							one.files.map(({ path }) => path).join('; ')
						])
					),
					...consolidated.map((one) => [
						one.number,
						revisionOf.get(one.number) ?? '',
						one.code,
						`${VERDICT_LABEL[one.code]}, made of verdicts that differ`,
						one.reason,
						one.by,
						project.name,
						one.at,
						'',
						''
					])
				]
			)
		),
		made(
			'data/answers.json',
			json({
				release: number,
				recipients: answers.map(({ name, company, receivedAt, verdicts }) => ({
					name,
					company,
					receivedAt,
					verdicts: verdicts.map(({ drawn, files: sent, ...one }) => ({
						...one,
						drawn: drawn && { file: drawn.path, sha256: drawn.sha256 },
						files: sent.map(({ path, hash, size }) => ({ file: path, size, sha256: hash }))
					}))
				})),
				consolidated
			})
		),
		made(
			'data/metadata.json',
			json({ project, release: number, containers: containers({ ...about, documents: files }) })
		)
	];
	const tags = [
		...bagTexts(payload, [
			['Source-Organization', project.name],
			['External-Identifier', `${project.code} release ${number}`],
			['External-Description', about.title],
			['Bagging-Date', about.day],
			['Bag-Software-Agent', 'Cupboard']
		]).map(({ path, text }) => made(path, text)),
		made('how-to-verify.txt', howToVerify(fingerprint, certificate.fingerprint)),
		made('verify.py', VERIFY_SCRIPT)
	];
	const last = tagManifest(tags);
	return [...tags, made(last.path, last.text), ...payload];
}
