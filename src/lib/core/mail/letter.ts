/** What a mail says: what, where, who, until when, and one link. Written once, sent as plain text and as HTML. */
export interface Letter {
	/** What happened or is asked, a paragraph each. */
	says: readonly string[];
	/** What is to be known at a glance: where, from whom, until when. */
	facts?: readonly (readonly [name: string, value: string])[];
	/** Where it leads, and what one does there. */
	link?: { word: string; href: string };
	/** What is to be known after that: how long the link holds, what it asks for. */
	after?: readonly string[];
	/** Several things told at once, each with its own way. */
	list?: readonly { says: string; href: string }[];
}

/** To whom a letter goes, and from where. */
export interface Envelope {
	to: string;
	subject: string;
	/** The project it is about; none for what concerns the person only. */
	project: string | null;
}

const foot = (project: string | null) => (project ? `${project} · Cupboard` : 'Cupboard');

/** A letter as plain text. */
export function letterText({ to, project }: Envelope, letter: Letter): string {
	const parts = [
		`Dear ${to},`,
		...letter.says,
		(letter.facts ?? []).map(([name, value]) => `${name}: ${value}`).join('\n'),
		(letter.list ?? []).map((one) => `· ${one.says}\n  ${one.href}`).join('\n'),
		letter.link ? `${letter.link.word}:\n${letter.link.href}` : '',
		...(letter.after ?? []),
		`-- \n${foot(project)}`
	];
	return `${parts.filter(Boolean).join('\n\n')}\n`;
}

const ENTITIES: Record<string, string> = {
	'&': '&amp;',
	'<': '&lt;',
	'>': '&gt;',
	'"': '&quot;',
	"'": '&#39;'
};
const escaped = (text: string) => text.replace(/[&<>"']/g, (sign) => ENTITIES[sign]!);
/** Text with its lines kept. */
const lines = (text: string) => escaped(text).replaceAll('\n', '<br>');

/**
 * What readers of mail understand of styles: on the elements themselves; the dark set for those that know of one.
 * The colours are those of the screens (src/app.css), which mails cannot load.
 */
const DARK = `@media (prefers-color-scheme: dark) {
	.page { background: #121a17 !important; }
	.sheet { background: #1a2420 !important; border-color: #36443e !important; color: #e6ece8 !important; }
	.quiet { color: #a3b1aa !important; }
	.link { color: #4fbfa3 !important; }
	.act { background: #4fbfa3 !important; color: #08211b !important; }
	.rule { border-color: #36443e !important; }
}`;
const FONT = "font-family: 'Archivo', 'Segoe UI', Helvetica, Arial, sans-serif;";

/** A letter as HTML: one column, readable without pictures, light and dark. */
export function letterHtml({ to, subject, project }: Envelope, letter: Letter): string {
	const paragraph = (text: string, look = '') =>
		`<p class="${look}" style="margin: 0 0 12px;${look === 'quiet' ? ' color: #55645d; font-size: 13px;' : ''}">${lines(text)}</p>`;
	const facts = (letter.facts ?? []).map(
		([name, value]) =>
			`<tr><td class="quiet rule" style="padding: 5px 16px 5px 0; border-top: 1px solid #dfe6e1; color: #55645d; vertical-align: top;">${escaped(name)}</td><td class="rule" style="padding: 5px 0; border-top: 1px solid #dfe6e1; font-weight: 600;">${lines(value)}</td></tr>`
	);
	const list = (letter.list ?? []).map(
		(one) =>
			`<li style="margin: 0 0 8px;">${lines(one.says)}<br><a class="link" href="${escaped(one.href)}" style="color: #0b6b58;">Open it</a></li>`
	);
	return `<!doctype html>
<html lang="en"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width">
<meta name="color-scheme" content="light dark"><meta name="supported-color-schemes" content="light dark">
<title>${escaped(subject)}</title><style>${DARK}</style></head>
<body class="page" style="margin: 0; padding: 0; background: #e9eeea;">
<table class="page" role="presentation" width="100%" cellspacing="0" cellpadding="0" style="background: #e9eeea;"><tr><td style="padding: 20px 10px;">
<table class="sheet" role="presentation" width="100%" cellspacing="0" cellpadding="0" style="max-width: 560px; margin: 0 auto; background: #fbfcfa; border: 1px solid #c9d3cc; color: #17231f; ${FONT} font-size: 15px; line-height: 1.45;">
<tr><td style="background: #16352e; color: #f2f6f3; padding: 10px 22px; font-weight: 700;">Cupboard${project ? `<span style="font-weight: 400; color: #d5e0db;"> · ${escaped(project)}</span>` : ''}</td></tr>
<tr><td style="padding: 20px 22px 10px;">
${paragraph(`Dear ${to},`)}
${letter.says.map((text) => paragraph(text)).join('\n')}
${facts.length ? `<table role="presentation" cellspacing="0" cellpadding="0" style="margin: 0 0 16px; font-size: 14px;">${facts.join('')}</table>` : ''}
${list.length ? `<ul style="margin: 0 0 12px; padding-left: 20px;">${list.join('')}</ul>` : ''}
${
	letter.link
		? `<p style="margin: 4px 0 8px;"><a class="act" href="${escaped(letter.link.href)}" style="display: inline-block; background: #0b6b58; color: #ffffff; padding: 9px 16px; border-radius: 2px; font-weight: 600; text-decoration: none;">${escaped(letter.link.word)}</a></p>
<p class="quiet" style="margin: 0 0 14px; color: #55645d; font-size: 12px; word-break: break-all;">or copy this address: ${escaped(letter.link.href)}</p>`
		: ''
}
${(letter.after ?? []).map((text) => paragraph(text, 'quiet')).join('\n')}
</td></tr>
<tr><td class="quiet rule" style="padding: 10px 22px; border-top: 1px solid #dfe6e1; color: #55645d; font-size: 12px;">${escaped(foot(project))}</td></tr>
</table></td></tr></table></body></html>`;
}
