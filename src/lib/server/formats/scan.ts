import { execFile } from 'node:child_process';
import { createReadStream } from 'node:fs';
import { promisify } from 'node:util';
import yauzl from 'yauzl';
import type { Scan } from '../platform/db/schema';

const run = promisify(execFile);

/** Looks for harmful content in a file; gives its name, or null when nothing was found. */
export interface Scanner {
	name: string;
	scan(path: string): Promise<string | null>;
}

/** Limits for archives from outside: entries, unpacked bytes in all, and unpacked against packed. */
const MOST_ENTRIES = 10_000;
const MOST_UNPACKED = 4 * 1024 ** 3;
const MOST_RATIO = 120;

/** ClamAV, when it is installed: its daemon first, which is quick, then the program that loads its lists each time. */
export async function findScanner(demo: boolean): Promise<Scanner | null> {
	for (const program of ['clamdscan', 'clamscan']) {
		const there = await run(program, ['--version'], { timeout: 5_000 }).then(
			() => true,
			() => false
		);
		if (there) return clam(program);
	}
	return demo ? simulated : null;
}

function clam(program: string): Scanner {
	return {
		name: 'ClamAV',
		async scan(path) {
			const args = program === 'clamdscan' ? ['--fdpass', '--no-summary', path] : ['--no-summary', path];
			try {
				await run(program, args, { timeout: 300_000, maxBuffer: 1024 * 1024 });
				return null;
			} catch (error) {
				const { code, stdout } = error as { code?: number; stdout?: string };
				// 1 is "found something"; anything else is a scanner that could not do its work.
				if (code !== 1) throw error;
				return /: (.+) FOUND/.exec(stdout ?? '')?.[1] ?? 'harmful content';
			}
		}
	};
}

/** The industry's harmless test text for scanners, in two halves so that this file is not taken for it. */
const TEST_TEXT = ['X5O!P%@AP[4\\PZX54(P^)7CC)7}$EICAR', '-STANDARD-ANTIVIRUS-TEST-FILE!$H+H*'].join('');

/** Stands in for a scanner in the demo: it knows the harmless test text that all scanners know. */
const simulated: Scanner = {
	name: 'the demo’s simulated scanner',
	async scan(path) {
		let kept = '';
		for await (const chunk of createReadStream(path, { encoding: 'latin1', highWaterMark: 1024 * 1024 })) {
			const text = kept + String(chunk);
			if (text.includes(TEST_TEXT)) return 'the harmless test text for scanners';
			kept = text.slice(-TEST_TEXT.length);
		}
		return null;
	}
};

/** Checks a file that came from outside: archives within their limits, and nothing that the scanner knows. */
export async function checkArrival(
	path: string,
	mediaType: string,
	scanner: Scanner | null,
	checkArchive: () => Promise<string | null> = () => archiveFault(path)
): Promise<Scan> {
	if (/zip|openxmlformats|opendocument/.test(mediaType)) {
		const fault = await checkArchive();
		if (fault) return { scanner: scanner?.name ?? null, fault };
	}
	if (!scanner) return { scanner: null, fault: null };
	const found = await scanner.scan(path);
	return { scanner: scanner.name, fault: found && `${scanner.name} found ${found}.` };
}

/** What is wrong with an archive by its own table of contents, without unpacking it; null when it is within bounds. */
export function archiveFault(path: string): Promise<string | null> {
	return new Promise((resolve) => {
		yauzl.open(path, { lazyEntries: true, validateEntrySizes: true }, (error, zip) => {
			if (error || !zip) return resolve('The archive is damaged and does not open.');
			let entries = 0;
			let unpacked = 0;
			let packed = 0;
			const end = (fault: string | null) => {
				zip.close();
				resolve(fault);
			};
			zip.on('entry', (entry: yauzl.Entry) => {
				entries++;
				unpacked += entry.uncompressedSize;
				packed += entry.compressedSize;
				if (entries > MOST_ENTRIES)
					return end(`The archive holds more than ${MOST_ENTRIES.toLocaleString('en')} files.`);
				if (unpacked > MOST_UNPACKED) return end('The archive would unpack to more than 4 GB.');
				if (unpacked > 50e6 && unpacked / Math.max(1, packed) > MOST_RATIO)
					return end('The archive unpacks to far more than its size, as archives made to harm do.');
				if (entry.generalPurposeBitFlag & 1)
					return end('The archive is locked with a password and cannot be checked.');
				zip.readEntry();
			});
			zip.on('end', () => resolve(null));
			zip.on('error', () => resolve('The archive is damaged and does not open.'));
			zip.readEntry();
		});
	});
}
