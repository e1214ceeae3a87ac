import { describe, expect, it } from 'vitest';
import { JSDOM } from 'jsdom';
import { letterHtml, letterText, type Letter } from './letter';

const to = { to: 'Maren <Aldgate>', subject: 'VFT: a pass', project: 'Vennholm & Sons' };
const letter: Letter = {
	says: ['Ines gives you a pass to <b>Quay wall</b>.', 'Two\nlines.'],
	facts: [['Until', '7 Dec']],
	link: { word: 'Open the pass', href: 'https://cupboard.example/pass/abc?a=1&b=2' },
	after: ['It asks for a code.'],
	list: [{ says: 'A remark', href: 'https://cupboard.example/vft/document/x' }]
};

describe('a letter', () => {
	it('says the same as text and as HTML', () => {
		const text = letterText(to, letter);
		const page = new JSDOM(letterHtml(to, letter)).window.document;
		const words = page.body.textContent!.replace(/\s+/g, ' ');
		for (const said of [
			'Dear Maren <Aldgate>,',
			'a pass to <b>Quay wall</b>.',
			'7 Dec',
			'It asks for a code.',
			'A remark'
		])
			for (const form of [text, words]) expect(form).toContain(said);
		expect([...page.querySelectorAll('a')].map((a) => a.getAttribute('href'))).toEqual([
			letter.list![0]!.href,
			letter.link!.href
		]);
		expect(text).toContain(`Open the pass:\n${letter.link!.href}\n`);
	});

	it('makes no element of what somebody wrote', () => {
		const page = new JSDOM(letterHtml(to, { says: ['<img src=x onerror=alert(1)>"\'&'] })).window.document;
		expect(page.querySelector('img, b, script')).toBeNull();
	});

	it('loads nothing, and knows light and dark', () => {
		const html = letterHtml(to, letter);
		expect(html).not.toMatch(/<(img|link|script)|url\(/);
		expect(html).toContain('prefers-color-scheme: dark');
	});

	it('leaves out what it has nothing for', () => {
		expect(letterText({ ...to, project: null }, { says: ['Yes.'] })).toBe(
			'Dear Maren <Aldgate>,\n\nYes.\n\n-- \nCupboard\n'
		);
	});
});
