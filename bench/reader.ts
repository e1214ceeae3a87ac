import { chromium, type Browser } from '@playwright/test';
import postgres from 'postgres';
import { FOLDER, READER } from './large-project';

const authorization = `Bearer ${READER.token}`;

/** Lets the reader be a document controller as long as something is done. */
export async function asController<T>(act: () => Promise<T>): Promise<T> {
	const sql = postgres(process.env.DATABASE_URL!, { max: 1, onnotice: () => {} });
	const control = (yes: boolean) => sql`update member set controller = ${yes} where person_id = ${READER.id}`;
	try {
		await control(true);
		return await act();
	} finally {
		await control(false);
		await sql.end();
	}
}

/** Asks as the reader. Raises an Error with what is answered when it is refused. */
export async function call<T>(method: string, path: string, body?: unknown): Promise<T> {
	const response = await fetch(`${process.env.ORIGIN}/api/v1${path}`, {
		method,
		headers: { authorization, 'content-type': 'application/json' },
		body: body === undefined ? undefined : JSON.stringify(body)
	});
	if (!response.ok) throw new Error(`${path}: ${response.status} ${(await response.text()).slice(0, 200)}`);
	return response.json() as Promise<T>;
}

/** Adds a document to the folder that is opened. */
export async function addDocument(
	number: string,
	fileName: string,
	bytes: string
): Promise<{ id: string; label: string }> {
	const sent = await fetch(`${process.env.ORIGIN}/api/v1/uploads?project=BIG&name=${fileName}`, {
		method: 'POST',
		headers: { authorization, 'content-type': 'application/octet-stream' },
		body: bytes
	});
	const { upload } = (await sent.json()) as { upload: string };
	return call('POST', `/places/${FOLDER}/documents`, { upload, number, title: 'A sheet' });
}

/** Something that no other run has called its own. */
export const stamp = (): string => Date.now().toString(36).toUpperCase();

/** A browser without a graphics card, as long as something is done with it. */
export async function inBrowser<T>(act: (browser: Browser) => Promise<T>): Promise<T> {
	const browser = await chromium.launch({
		executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium-headless-shell',
		args: ['--no-sandbox', '--disable-gpu', '--disable-dev-shm-usage']
	});
	try {
		return await act(browser);
	} finally {
		await browser.close();
	}
}

/** A window of it in which the reader is signed in. */
export const SIGNED_IN = {
	viewport: { width: 1280, height: 800 },
	extraHTTPHeaders: { authorization }
};
