<script lang="ts">
	import { toast } from 'svelte-sonner';
	import type { Mark } from '../../core/markup/mark';
	import { stampsFor } from '../../core/markup/stamps';
	import type { VersionRow } from '../../core/rows';
	import { attempt, call } from '../api';
	import { dayText, plural } from '../words';
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
		refreshed: () => void;
	} = $props();

	const filled = $derived(stampsFor(stamps, markup.me.name, dayText(new Date())));
	let carrying = $state(false);

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
	carry={from ? { from: carrying ? `${from.label}, comparing…` : from.label, run: () => void carry() } : null}
/>
