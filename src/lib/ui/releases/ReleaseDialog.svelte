<script lang="ts">
	import Field from '../kit/Field.svelte';
	import Form from '../kit/Form.svelte';
	import type { Pickable } from '../kit/person';
	import Select from '../kit/Select.svelte';
	import { onMount, untrack } from 'svelte';
	import { goto } from '$app/navigation';
	import { PURPOSE_LABEL, type Purpose } from '../../core/revisions/revisions';
	import { page } from '$app/state';
	import {
		AS_ADDED,
		groupings,
		ITEM_ORDER_LABEL,
		ITEM_ORDERS,
		releaseNumber,
		type Approver,
		type Arrangement,
		type ItemOrder,
		type RouteTemplate,
		type Step
	} from '../../core/releases';
	import { cupboard, type AnswerOf } from '../../client/cupboard';
	import { attempt } from '../platform/api';
	import Dialog from '../kit/Dialog.svelte';
	import { approversAmong } from './approvers';
	import { proposedReceivers, receiversOf, recipientsToPick, sentTo, type Receiver } from './recipients';
	import RecipientsEditor from './RecipientsEditor.svelte';
	import ReplyDay from './ReplyDay.svelte';
	import RouteEditor from './RouteEditor.svelte';
	import { plural } from '../platform/words';

	/** Puts chosen documents in a new release or in one that is being built; or corrects the head of one. */
	let {
		open = $bindable(false),
		project,
		code,
		me,
		documents,
		edit = null,
		to,
		changed
	}: {
		open: boolean;
		project: string;
		code: string;
		me: string;
		documents: string[];
		/** The release whose head is corrected, instead of a new one. */
		edit?: {
			id: string;
			number: number;
			title: string;
			purpose: Purpose;
			recipients: AnswerOf<'releaseView'>['recipients'];
			route: Step[];
			replyBy: string | null;
			words: string;
			stamped: boolean;
			withMarks: boolean;
			arrangement: Arrangement;
		} | null;
		/** Mail address of who gets a new one, where that is known already. */
		to?: string | undefined;
		changed?: () => Promise<void>;
	} = $props();

	let approvers = $state.raw<(Pickable & Approver)[]>([]);
	let pickable = $state.raw<Awaited<ReturnType<typeof recipientsToPick>> | null>(null);
	let routes = $state.raw<RouteTemplate[]>([]);
	let loaded = false;
	/** How often a proposal was asked for. */
	let asked = 0;
	/** Who is on the distribution list. */
	let listed: AnswerOf<'people'>['recipients'] = [];
	/** Where those who get it come from: chosen by somebody, or proposed. */
	let receiving = $state<'chosen' | 'proposed' | 'nobody'>(untrack(() => (edit ? 'chosen' : 'nobody')));
	let building = $state<{ id: string; number: number; title: string }[]>([]);
	let into = $state('');
	// Nothing is chosen that nobody chose.
	const before = untrack(() => edit);
	let title = $state(before?.title ?? '');
	let purpose = $state<Purpose | ''>(before?.purpose ?? '');
	let receivers = $state.raw<Receiver[]>(before ? receiversOf(before.recipients) : []);
	let steps = $state.raw<Step[]>(before?.route ?? []);
	/** The route of the project that was chosen, by its name; none where one of its own is written. */
	let template = $state('');
	/** Whether the route is what somebody chose or wrote, and no proposal writes over it. */
	let settled = untrack(() => edit !== null);
	let replyBy = $state(before?.replyBy ?? '');
	let words = $state(before?.words ?? '');
	let stamped = $state(before?.stamped ?? false);
	let withMarks = $state(before?.withMarks ?? false);
	let order = $state<ItemOrder>(before?.arrangement.order ?? AS_ADDED.order);
	/** An order is set by hand where the documents stand; here one goes back to it, or leaves it. */
	const orders = $derived(ITEM_ORDERS.filter((one) => one !== 'placed' || before?.arrangement.order === one));
	let group = $state(before?.arrangement.group ?? '');
	const arrangement = $derived({ order, group: group || null });
	const parts = $derived(groupings((page.data.frame as AnswerOf<'projectFrame'>).project.numbering));
	onMount(() => {
		void attempt(async () => {
			const people = await cupboard.people({ project });
			const { releases } = await cupboard.releases({ project });
			building = releases.filter((r) => r.state === 'building');
			const kept = await cupboard.settings({ project });
			approvers = approversAmong(people, kept.approveOwn ? undefined : me);
			listed = people.recipients;
			const { known, receiver } = (pickable = await recipientsToPick(project, listed));
			if (to && !receivers.length) {
				const email = to.toLowerCase();
				receivers = [receiver(known.find((one) => one.email === email) ?? { email })];
				receiving = 'chosen';
			}
			routes = kept.routes;
			loaded = true;
			await propose();
		});
	});

	/** Proposes the route and the recipients that the project keeps for the purpose, as long as nobody chose others. */
	async function propose() {
		// Once it is known whom and what the project keeps, it is done again.
		if (!loaded) return;
		proposeRoute();
		if (purpose !== '' && receiving !== 'chosen') await proposeRecipients({ documents });
	}
	async function proposeRecipients(of: { documents: string[] } | { release: string }) {
		if (purpose === '') return;
		const turn = ++asked;
		const found = await attempt(() =>
			proposedReceivers({ project, purpose: purpose as Purpose, ...of }, listed)
		);
		// Another purpose may have been chosen meanwhile, or somebody by hand.
		if (!found || turn !== asked || ('documents' in of && receiving === 'chosen')) return;
		receivers = found;
		receiving = found.length ? 'proposed' : 'nobody';
	}
	function proposeRoute() {
		if (settled) return;
		const kept =
			purpose !== '' &&
			(routes.find((one) => one.purpose === purpose) ?? routes.find((one) => one.purpose === null));
		[template, steps] = kept
			? [kept.name, kept.steps]
			: ['', [{ name: 'Approval', of: [], needs: 'all', days: null }]];
	}
	function chooseRoute(name: string) {
		settled = true;
		template = name;
		steps = routes.find((one) => one.name === name)?.steps ?? steps;
	}
	async function submit() {
		if (edit) {
			await cupboard.changeRelease({
				release: edit.id,
				title,
				purpose: purpose as Purpose,
				recipients: await sentTo(project, receivers),
				words,
				stamped,
				withMarks,
				arrangement,
				route: steps,
				replyBy: replyBy || null
			});
			await changed?.();
		} else if (into) {
			await cupboard.addToRelease({ release: into, documents });
			await goto(`/${code}/releases/${building.find((b) => b.id === into)!.number}`);
		} else {
			const made = await cupboard.buildRelease({
				project,
				title,
				purpose: purpose as Purpose,
				recipients: await sentTo(project, receivers),
				words,
				stamped,
				withMarks,
				arrangement,
				route: steps,
				replyBy: replyBy || null,
				documents
			});
			await goto(`/${code}/releases/${made.number}`);
		}
		open = false;
	}
</script>

<Dialog
	bind:open
	title={edit
		? `Change release ${releaseNumber(edit.number)}`
		: documents.length
			? `Put ${plural(documents.length, 'document')} in a release`
			: 'New release'}
>
	<Form
		act={submit}
		button={edit ? 'Change release' : into ? 'Put in release' : 'Build release'}
		cancel={() => (open = false)}
	>
		{#if building.length && documents.length}
			<label class="block"
				><span class="label">Release</span><Select
					choices={[
						{ value: '', label: 'a new one' },
						...building.map((b) => ({ value: b.id, label: `${releaseNumber(b.number)} ${b.title}` }))
					]}
					bind:value={into}
				/></label
			>
		{/if}
		{#if !into}
			<Field label="Title" name="title" bind:value={title} maxlength={180} required />
			<div class="grid grid-cols-2 gap-3">
				<label class="block"
					><span class="label">Purpose</span><Select
						choices={Object.entries(PURPOSE_LABEL).map(([key, word]) => ({ value: key, label: word }))}
						bind:value={() => purpose, (to) => ((purpose = to), void propose())}
						placeholder="choose what it is for"
						required
					/></label
				>
				<ReplyDay label="Reply asked by" bind:value={replyBy} />
			</div>
			{#if pickable}<RecipientsEditor
					bind:receivers={() => receivers, (to) => ([receivers, receiving] = [to, 'chosen'])}
					proposed={receiving === 'proposed'}
					propose={edit ? () => proposeRecipients({ release: edit.id }) : undefined}
					known={pickable.known}
					receiver={pickable.receiver}
				/>{/if}
			<label class="block"
				><span class="label">What you say to them, in the cover note and the mail</span><textarea
					class="field min-h-[52px]"
					bind:value={words}
					maxlength={2000}
					placeholder="Nothing has to be said"></textarea></label
			>
			<div class="grid grid-cols-2 gap-3">
				<label class="block"
					><span class="label">The documents are listed</span><Select
						choices={orders.map((value) => ({ value, label: ITEM_ORDER_LABEL[value] }))}
						bind:value={order}
					/></label
				>
				<label class="block"
					><span class="label">In groups</span><Select
						choices={[
							{ value: '', label: 'in one list' },
							...parts.map((one) => ({ value: one.key, label: `by ${one.label.toLowerCase()}` }))
						]}
						bind:value={group}
					/></label
				>
			</div>
			<fieldset>
				<legend class="label">The documents leave</legend>
				<label class="flex items-center gap-2"
					><input type="checkbox" class="accent-act" bind:checked={stamped} />with a stamp: number, revision,
					status, release and day</label
				>
				<label class="flex items-center gap-2"
					><input type="checkbox" class="accent-act" bind:checked={withMarks} />with the marks on them burned
					in</label
				>
				<p class="text-[12px] text-ink-2">
					{stamped || withMarks
						? 'A changed copy goes out; the original stays, and the signed list names both. PDF, PNG and JPEG carry a stamp; a sheet with marks goes out as PDF. What can carry neither leaves as it is.'
						: 'As they are.'}
				</p>
			</fieldset>
			{#if routes.length}<label class="block"
					><span class="label">Route, as the project keeps it</span><Select
						choices={[
							{ value: '', label: 'one of its own, written below' },
							...routes.map((one) => ({
								value: one.name,
								label: one.name,
								hint: one.purpose ? PURPOSE_LABEL[one.purpose].toLowerCase() : 'for any purpose'
							}))
						]}
						bind:value={() => template, chooseRoute}
					/></label
				>{/if}
			<RouteEditor
				label="Route: who approves it, step by step, before it goes out"
				bind:steps={() => steps, (to) => ([steps, template, settled] = [to, '', true])}
				known={approvers}
			/>
		{/if}
		{#if edit}<p class="text-[12px] text-ink-2">Every step is asked again, and sees what changed.</p>{/if}
	</Form>
</Dialog>
