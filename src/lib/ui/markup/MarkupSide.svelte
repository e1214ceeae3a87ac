<script lang="ts">
	import { toast } from '../kit/toast';
	import { stampsFor } from '../../core/markup/stamps';
	import type { VersionRow } from '../../core/documents/rows';
	import { addressOf, cupboard } from '../../client/cupboard';
	import { attempt } from '../platform/api';
	import { burnedCopy, plainly, sheetBytes } from './burned-copy';
	import { saveFile } from '../platform/save-file';
	import { dayText, plural } from '../platform/words';
	import type { LiveLine } from '../live/line.svelte';
	import LineState from '../live/LineState.svelte';
	import type { Markup } from './markup.svelte';
	import MarkupTools from './MarkupTools.svelte';

	/** The tools of marking up a version, with what needs the server: carrying over from the version before. */
	let {
		markup,
		line,
		codes,
		stamps,
		grow,
		document,
		version,
		from,
		mayDownload,
		name,
		refreshed
	}: {
		markup: Markup;
		/** The line to the others who mark it up. */
		line: LiveLine | null;
		codes: string[];
		stamps: string[];
		grow: (factor: number) => void;
		document: string;
		version: VersionRow;
		/** The newest earlier version that was marked up. */
		from: VersionRow | null;
		/** Whether a copy may leave. */
		mayDownload: boolean;
		/** Number and title. */
		name: string;
		refreshed: () => void;
	} = $props();

	const filled = $derived(stampsFor(stamps, markup.me.name, dayText(new Date())));
	let carrying = $state(false);
	const at = ({ label }: { label: string }) => ({ document, label });

	let burning = $state(false);
	/** A copy as PDF with the marks of the layers that are shown; the original stays as it is. */
	async function burn() {
		burning = true;
		const done = await attempt(() =>
			burnedCopy(addressOf('versionFile', { ...at(version), download: '' }), {
				mediaType: version.mediaType,
				marks: [...markup.marks.values()].filter((m) => !markup.hidden.has(m.layer)),
				scales: markup.scales,
				codes,
				title: `${name} ${version.label}, marked up`,
				shown: addressOf('versionShown', at(version))
			})
		);
		burning = false;
		if (done) saveFile(done, `${name} ${version.label} marked up.pdf`, 'application/pdf');
	}
	/** Marks leave and come as standard annotations of a PDF; other kinds of sheet have none. */
	const isPdf = $derived(version.mediaType === 'application/pdf');
	const bytes = () => sheetBytes(addressOf('versionFile', at(version)));
	async function exchange(as: 'xfdf' | 'pdf') {
		burning = true;
		const stem = `${name} ${version.label}`;
		const done = await attempt(async () => {
			const { people } = await cupboard.mentionable({ document });
			const { annotatedPdf, marksAsXfdf } = await import('./annotate');
			const annotating = {
				bytes: await bytes(),
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
			return marksIn(file, await bytes()).catch(plainly);
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
		const done = await attempt(async () => {
			const { marks } = await cupboard.marks({ document, label: from.label });
			const { changedUnder } = await import('./carry');
			const side = (v: VersionRow) => ({ url: addressOf('versionFile', at(v)), mediaType: v.mediaType });
			const changed = await changedUnder(marks, side(from), side(version), new AbortController().signal);
			return cupboard.carryMarks({
				document,
				label: version.label,
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

{#snippet standing()}<LineState {line} />{/snippet}
<MarkupTools
	{markup}
	{codes}
	layers="Layers of departments"
	{standing}
	stamps={filled}
	{grow}
	burn={mayDownload && markup.marks.size ? { busy: burning, run: () => void burn() } : null}
	exchange={isPdf && mayDownload && markup.marks.size
		? { busy: burning, run: (as) => void exchange(as) }
		: null}
	bringIn={isPdf ? (file) => void bringIn(file) : null}
	carry={from ? { from: carrying ? `${from.label}, comparing…` : from.label, run: () => void carry() } : null}
/>
