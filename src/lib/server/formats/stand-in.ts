/**
 * Files that are shown through another one made from them: office files through the PDF that LibreOffice prints of them,
 * pictures of phones through one that everything opens. Both programs are used where they are installed. Runs in the
 * format workers.
 */
import { access, copyFile, mkdir, mkdtemp, readdir, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { delimiter, join } from 'node:path';
import { familyOf, FILE_KINDS } from '../../core/files/kinds';
import { bounded } from './limits';

export interface StandInTask {
	task: 'stand-in';
	path: string;
	mediaType: string;
	/** Where the made file goes. */
	to: string;
}

/** Seconds of a processor that a program may take for one file: what others compute meanwhile is not its fault. */
const WORK = 40;

/** Seconds after which it is taken for stuck, whatever it waits for. */
const PATIENCE = 240;

/** What a kind is shown through, with the program that makes it; null for kinds that are opened themselves. */
export function standInFor(mediaType: string): { mediaType: string; program: string; ending: string } | null {
	if (familyOf(mediaType) === 'phone')
		return { mediaType: 'image/jpeg', program: 'heif-convert', ending: 'jpg' };
	if (FILE_KINDS.get(mediaType)?.printed)
		return { mediaType: 'application/pdf', program: 'soffice', ending: 'pdf' };
	return null;
}

/** Whether a program is installed. */
export async function installed(program: string): Promise<boolean> {
	for (const folder of (process.env.PATH ?? '').split(delimiter))
		if (
			await access(join(folder, program)).then(
				() => true,
				() => false
			)
		)
			return true;
	return false;
}

/**
 * Makes the file that is shown in another one's stead. Throws when the program fails, or makes nothing.
 * @param work seconds of a processor that it may take
 */
export async function makeStandIn(
	{ path, mediaType, to }: Omit<StandInTask, 'task'>,
	work = WORK
): Promise<true> {
	const wanted = standInFor(mediaType)!;
	const home = await mkdtemp(join(tmpdir(), 'cupboard-stand-in-'));
	try {
		const made =
			wanted.program === 'soffice'
				? await printed(path, mediaType, home, work)
				: await opened(path, home, work);
		await copyFile(made, to);
		return true;
	} finally {
		await rm(home, { recursive: true, force: true });
	}
}

/**
 * Runs a program in a folder of its own, after everybody who waits for a page, and not longer than it may. These
 * reserve far more memory than they fill; what they fill is bounded with the worker that they run under.
 */
const apart = (home: string, work: number, ...program: string[]) =>
	bounded(
		'nice',
		['-n', '5', 'timeout', '-s', 'KILL', String(PATIENCE), 'prlimit', `--cpu=${work}`, ...program],
		{ memory: false, home }
	);

async function opened(path: string, home: string, work: number): Promise<string> {
	await apart(home, work, 'heif-convert', '-q', '92', path, join(home, 'made.jpg'));
	// A file with several pictures becomes several files; the first is the one that was taken.
	const [first] = (await readdir(home)).filter((name) => name.endsWith('.jpg')).sort();
	if (!first) throw new Error('The picture could not be opened.');
	return join(home, first);
}

/** Settings of LibreOffice: nothing in a file runs, and nothing is fetched from elsewhere in the server's name. */
const SETTINGS = `<?xml version="1.0" encoding="UTF-8"?>
<oor:items xmlns:oor="http://openoffice.org/2001/registry" xmlns:xs="http://www.w3.org/2001/XMLSchema" xmlns:xsi="http://www.w3.org/2001/XMLSchema-instance">
<item oor:path="/org.openoffice.Office.Common/Security/Scripting"><prop oor:name="DisableMacrosExecution" oor:op="fuse"><value>true</value></prop></item>
<item oor:path="/org.openoffice.Office.Common/Security/Scripting"><prop oor:name="MacroSecurityLevel" oor:op="fuse"><value>3</value></prop></item>
<item oor:path="/org.openoffice.Office.Common/Security/Scripting"><prop oor:name="BlockUntrustedRefererLinks" oor:op="fuse"><value>true</value></prop></item>
<item oor:path="/org.openoffice.Office.Writer/Content/Update"><prop oor:name="Link" oor:op="fuse"><value>0</value></prop></item>
<item oor:path="/org.openoffice.Office.Calc/Content/Update"><prop oor:name="Link" oor:op="fuse"><value>1</value></prop></item>
<item oor:path="/org.openoffice.Inet/Settings"><prop oor:name="ooInetProxyType" oor:op="fuse"><value>1</value></prop></item>
<item oor:path="/org.openoffice.Inet/Settings"><prop oor:name="ooInetHTTPProxyName" oor:op="fuse"><value>127.0.0.1</value></prop></item>
<item oor:path="/org.openoffice.Inet/Settings"><prop oor:name="ooInetHTTPProxyPort" oor:op="fuse"><value>9</value></prop></item>
<item oor:path="/org.openoffice.Inet/Settings"><prop oor:name="ooInetHTTPSProxyName" oor:op="fuse"><value>127.0.0.1</value></prop></item>
<item oor:path="/org.openoffice.Inet/Settings"><prop oor:name="ooInetHTTPSProxyPort" oor:op="fuse"><value>9</value></prop></item>
</oor:items>
`;

async function printed(path: string, mediaType: string, home: string, work: number): Promise<string> {
	const profile = join(home, 'profile', 'user');
	await mkdir(profile, { recursive: true });
	await writeFile(join(profile, 'registrymodifications.xcu'), SETTINGS);
	// LibreOffice looks at the ending of a name before it looks at bytes.
	const file = join(home, `file.${FILE_KINDS.get(mediaType)!.endings[0]}`);
	await copyFile(path, file);
	const made = join(home, 'made');
	await apart(
		home,
		work,
		...['soffice', `-env:UserInstallation=file://${join(home, 'profile')}`, '--headless', '--norestore'],
		...['--nolockcheck', '--convert-to', 'pdf', '--outdir', made, file]
	);
	return join(made, 'file.pdf');
}
