<script lang="ts">
	import { toast } from 'svelte-sonner';
	import type { Mark } from '../../core/markup/mark';
	import { stampsFor } from '../../core/markup/stamps';
	import type { VersionRow } from '../../core/documents/rows';
	import { attempt, call, CallError } from '../platform/api';
	import { saveFile } from '../adding/files';
	import { dayText, plural } from '../platform/words';
	import type { Markup } from './markup.svelte';
	import MarkupTools from './MarkupTools.svelte';

	/** The tools of marking up a version, with what needs the server: carrying over from the version before. */
	let {
		markup,
		codes,
		stamps,
		grow,
		document,
		version,
		from,
		mayTake,
		name,
		refreshed
	}: {
		markup: Markup;
		codes: string[];
		stamps: string[];
		grow: (factor: number) => void;
		document: string;
		version: VersionRow;
		/** The newest earlier version that was marked up. */
		from: VersionRow | null;
		/** Whether a copy may leave. */
		mayTake: boolean;
		/** Number and title. */
		name: string;
		refreshed: () => void;
	} = $props();

	const filled = $derived(stampsFor(stamps, markup.me.name, dayText(new Date())));
	let carrying = $state(false);

	let burning = $state(false);
	/** A copy as PDF with the marks of the layers that are shown; the original stays as it is. */
	async function burn() {
		burning = true;
		const done = await attempt(async () => {
			const response = await fetch(`/api/v1/documents/${document}/versions/${version.label}/file?download`);
			if (!response.ok) throw new CallError('busy', 'The file could not be fetched.', {});
			const { burnedPdf } = await import('./burn');
			return burnedPdf({
				bytes: await response.arrayBuffer(),
				mediaType: version.mediaType,
				marks: [...markup.marks.values()].filter((m) => !markup.hidden.has(m.layer)),
				scales: markup.scales,
				codes,
				title: `${name} ${version.label}, marked up`,
				shown: `/api/v1/documents/${document}/versions/${version.label}/shown`
			}).catch((error: unknown) => {
				throw new CallError('invalid', (error as Error).message, {});
			});
		});
		burning = false;
		if (done) saveFile(done, `${name} ${version.label} marked up.pdf`, 'application/pdf');
	}
	/** Marks leave and come as standard annotations of a PDF; other kinds of sheet have none. */
	const isPdf = $derived(version.mediaType === 'application/pdf');
	const plainly = (error: unknown) => {
		throw new CallError('invalid', (error as Error).message, {});
	};
	async function sheetBytes(): Promise<ArrayBuffer> {
		const response = await fetch(`/api/v1/documents/${document}/versions/${version.label}/file`);
		if (!response.ok) throw new CallError('busy', 'The file could not be fetched.', {});
		return response.arrayBuffer();
	}
	async function exchange(as: 'xfdf' | 'pdf') {
		burning = true;
		const stem = `${name} ${version.label}`;
		const done = await attempt(async () => {
			const { people } = await call<{ people: { id: string; name: string }[] }>(
				'GET',
				`/documents/${document}/mentionable`
			);
			const { annotatedPdf, marksAsXfdf } = await import('./annotate');
			const annotating = {
				bytes: await sheetBytes(),
				marks: [...markup.marks.values()].filter((m) => !markup.hidden.has(m.layer)),
				scales: markup.scales,
				codes,
				names: new Map(people.map((p) => [p.id, p.name]))
			};
			return as === 'pdf'
				? annotatedPdf(annotating).catch(plainly)
				: marksAsXfdf(annotating, version.fileName).then((text) => new TextEncoder().encode(text), plainly);
		});
		burning = false;
		if (done)
			saveFile(
				done,
				`${stem} ${as === 'pdf' ? 'with annotations.pdf' : 'marks.xfdf'}`,
				as === 'pdf' ? 'application/pdf' : 'application/vnd.adobe.xfdf'
			);
	}
	async function bringIn(file: File) {
		const found = await attempt(async () => {
			const { marksIn } = await import('./annotate');
			return marksIn(file, await sheetBytes()).catch(plainly);
		});
		if (!found) return;
		markup.bringIn(found.marks);
		toast.success(
			`${plural(found.marks.length, 'mark')} of ${file.name} ${found.marks.length === 1 ? 'stands' : 'stand'} here as yours${found.others ? `; ${found.others} of other kinds are left out` : ''}.`
		);
	}
	/** Marks come along with whose they are; where the sheet changed under them, they say so. */
	async function carry() {
		if (!from || carrying) return;
		carrying = true;
		const address = (label: string) => `/documents/${document}/versions/${label}`;
		const done = await attempt(async () => {
			const { marks } = await call<{ marks: Mark[] }>('GET', `${address(from.label)}/marks`);
			const { changedUnder } = await import('./carry');
			const side = (v: VersionRow) => ({ url: `/api/v1${address(v.label)}/file`, mediaType: v.mediaType });
			const changed = await changedUnder(marks, side(from), side(version), new AbortController().signal);
			return call<{ carried: number }>('POST', `${address(version.label)}/marks/carried`, {
				from: from.label,
				changed
			});
		});
		carrying = false;
		if (!done) return;
		toast.success(`${plural(done.carried, 'mark')} of ${from.label} stand here now.`);
		refreshed();
	}
</script>

<MarkupTools
	{markup}
	{codes}
	stamps={filled}
	{grow}
	burn={mayTake && markup.marks.size ? { busy: burning, run: () => void burn() } : null}
	exchange={isPdf && mayTake && markup.marks.size ? { busy: burning, run: (as) => void exchange(as) } : null}
	bringIn={isPdf ? (file) => void bringIn(file) : null}
	carry={from ? { from: carrying ? `${from.label}, comparing…` : from.label, run: () => void carry() } : null}
/>
