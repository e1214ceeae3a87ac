import { spawn, spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { Refusal, step } from './say.mjs';

const STAMP = 'node_modules/.cupboard-packages';

/**
 * Installs the npm packages when they are missing or the lock file changed.
 * @param beside what is done meanwhile, such as installing programs; it may wait for its own programs
 */
export async function ensurePackages(beside = () => {}) {
	const [major, minor] = process.versions.node.split('.').map(Number);
	if (major < 20 || (major === 20 && minor < 19))
		throw new Refusal(`Cupboard needs Node.js 20.19 or newer; this is ${process.versions.node}.`);
	const wanted = createHash('sha256').update(readFileSync('package-lock.json')).digest('hex');
	if (existsSync(STAMP) && readFileSync(STAMP, 'utf8') === wanted) return beside();
	step('installing packages (npm ci)');
	const npm = spawn('npm', ['ci', '--no-audit', '--no-fund', '--loglevel=error'], { stdio: 'inherit' });
	const ended = new Promise((done) => npm.once('close', done).once('error', () => done(1)));
	try {
		beside();
	} catch (fault) {
		npm.kill();
		throw fault;
	}
	if ((await ended) !== 0)
		throw new Refusal(
			'The packages could not be installed. Check that the npm registry can be reached and that the disk has 1.5 GB free, then try again.'
		);
	writeFileSync(STAMP, wanted);
}

/** Debian packages needed as programs, with a program each is known by. */
const PROGRAMS = { 'poppler-utils': ['pdftoppm', 'pdfinfo'], 'util-linux': ['prlimit'] };

function has(program) {
	return spawnSync('sh', ['-c', `command -v ${program}`], { stdio: 'ignore' }).status === 0;
}

/**
 * Makes sure Debian packages are there: installs them as root, otherwise says what to do.
 * @param missing names of packages
 */
export function installDebian(missing) {
	if (!missing.length) return;
	const list = missing.join(' ');
	if (process.getuid?.() !== 0 || !has('apt-get')) {
		throw new Refusal(
			`Cupboard needs ${list}. Install with “sudo apt-get install ${list}” (on another system, the packages of the same names), then try again.`
		);
	}
	step(`installing ${list} (apt-get)`);
	const env = { ...process.env, DEBIAN_FRONTEND: 'noninteractive' };
	const apt = (...args) =>
		spawnSync('apt-get', ['-qq', '-o', 'Dpkg::Use-Pty=0', ...args], {
			stdio: ['ignore', 'ignore', 'inherit'],
			env
		}).status;
	if (apt('install', '-y', '--no-install-recommends', ...missing) !== 0) {
		apt('update');
		if (apt('install', '-y', '--no-install-recommends', ...missing) !== 0) {
			throw new Refusal(
				`${list} could not be installed. Run “apt-get install ${list}” to see why, then try again.`
			);
		}
	}
}

export function ensurePrograms() {
	installDebian(
		Object.entries(PROGRAMS)
			.filter(([, programs]) => !programs.every(has))
			.map(([name]) => name)
	);
}

/** What the bench measures with: curl, and nginx for comparing downloads with, which only root gets installed. */
export function ensureMeasures() {
	if (!has('curl')) installDebian(['curl']);
	if (!existsSync('/usr/sbin/nginx') && process.getuid?.() === 0) installDebian(['nginx-light']);
}

/** Programs that files are held against; LibreOffice alone is some hundred megabytes. */
export function ensureOthers() {
	const missing = [];
	if (!has('soffice'))
		missing.push('libreoffice-writer-nogui', 'libreoffice-calc-nogui', 'libreoffice-impress-nogui');
	if (!has('qpdf')) missing.push('qpdf');
	if (!has('heif-enc')) missing.push('libheif-examples');
	if (!has('tiffcp')) missing.push('libtiff-tools');
	if (!existsSync('/usr/share/assimp/models/IFC')) missing.push('assimp-testmodels');
	if (!existsSync('/usr/lib/python3/dist-packages/ezdxf')) missing.push('python3-ezdxf');
	installDebian(missing);
}

/** Redis for the tests of several processes; gives its path. */
export function ensureRedis() {
	if (!existsSync('/usr/bin/redis-server')) installDebian(['redis-server']);
	return '/usr/bin/redis-server';
}

/**
 * Chromium for browser tests; gives its path. The shell that Debian builds without windows takes half of the time of the
 * whole browser, which is used where somebody who may not install has only that.
 */
export function ensureChromium() {
	const [shell, whole] = ['/usr/bin/chromium-headless-shell', '/usr/bin/chromium'];
	if (existsSync(shell)) return shell;
	if (process.getuid?.() !== 0 && existsSync(whole)) return whole;
	installDebian(['chromium-headless-shell']);
	return shell;
}
