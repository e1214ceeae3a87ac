<script lang="ts">
	import Form from '../kit/Form.svelte';
	import type { Audience } from '../../core/passes/passes';
	import { toast } from '../kit/toast';
	import { dayOf } from '../../core/time/days';
	import { cupboard } from '../../client/cupboard';
	import { CallError } from '../../client/call';
	import Dialog from '../kit/Dialog.svelte';
	import PassFields, { termsGiven, type PassTerms } from './PassFields.svelte';

	interface Given {
		id: string;
		holder: string;
		name: string;
		release: number | null;
		audience: Audience;
		emails: string[];
		locked: boolean;
		endsAt: string;
		maxUses: number | null;
		mayDownload: boolean;
		stamped: boolean;
		withMarks: boolean;
	}

	/** Changes a pass; what makes it wider is said and asked before it is done. */
	let {
		pass = $bindable(null),
		projectId,
		timeZone,
		done
	}: {
		pass: Given | null;
		projectId: string;
		timeZone: string;
		done: () => Promise<void> | void;
	} = $props();

	const lastDay = (at: string) => dayOf(at, timeZone);
	let terms = $state(termsOf(null));
	let noPassword = $state(false);
	let wider = $state<string[]>([]);

	function termsOf(given: Given | null): PassTerms {
		return {
			whom: given?.holder ?? '',
			audience: given?.audience ?? 'named',
			emails: given?.emails.join(', ') ?? '',
			take: given?.mayDownload ?? false,
			stamped: given?.stamped ?? false,
			withMarks: given?.withMarks ?? false,
			until: given ? lastDay(given.endsAt) : '',
			maxUses: given?.maxUses ?? null,
			password: ''
		};
	}
	$effect(() => {
		if (pass) [terms, noPassword, wider] = [termsOf(pass), false, []];
	});
	// Another change is another question.
	$effect(() => {
		void [JSON.stringify(terms), noPassword];
		wider = [];
	});

	async function save() {
		if (!pass) return;
		const { mayDownload, stamped, withMarks, ...given } = termsGiven(terms);
		try {
			await cupboard.changePass({
				project: projectId,
				pass: pass.id,
				...given,
				...(pass.release ? {} : { mayDownload, stamped, withMarks }),
				...(terms.password ? { password: terms.password } : noPassword ? { password: null } : {}),
				...(terms.until === lastDay(pass.endsAt) ? {} : { until: terms.until }),
				wider: wider.length > 0
			});
		} catch (error) {
			const more = error instanceof CallError ? (error.facts.wider as string[] | undefined) : undefined;
			if (!more || wider.length) throw error;
			wider = more;
			return;
		}
		pass = null;
		toast('The pass is changed.');
		await done();
	}
</script>

<Dialog
	bind:open={() => pass !== null, (value) => !value && (pass = null)}
	title="Change the pass to {pass?.name ?? ''}"
>
	<Form act={save} button={wider.length ? 'Make it wider' : 'Change the pass'} cancel={() => (pass = null)}>
		<PassFields bind:terms mailed={null} whole={pass?.release != null} locked={pass?.locked} />
		{#if pass?.locked && !terms.password}<label class="flex items-center gap-2"
				><input type="checkbox" class="accent-act" bind:checked={noPassword} />ask for no password any more</label
			>{/if}
		{#if wider.length}<p role="alert" class="border border-lock bg-lock-soft px-3 py-2">
				This makes the pass wider: {wider.join('; ')}.
			</p>{/if}
	</Form>
</Dialog>
