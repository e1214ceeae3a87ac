<script lang="ts">
	import Field from '../kit/Field.svelte';
	import Form from '../kit/Form.svelte';
	import DateField from '../kit/DateField.svelte';
	import { isKnown, membersOf, personOf, type Pickable, type Picked } from '../kit/person';
	import PersonPicker from '../kit/PersonPicker.svelte';
	import Select from '../kit/Select.svelte';
	import { onMount, untrack } from 'svelte';
	import { goto } from '$app/navigation';
	import { PURPOSE_LABEL, type Purpose } from '../../core/revisions/revisions';
	import { releaseNumber } from '../../core/releases';
	import { cupboard, type AnswerOf } from '../../client/cupboard';
	import { attempt } from '../platform/api';
	import Dialog from '../kit/Dialog.svelte';
	import { plural } from '../platform/words';

	/** Puts chosen documents in a new release or in one that is being built; or corrects the head of one. */
	let {
		open = $bindable(false),
		project,
		code,
		me,
		documents,
		edit = null,
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
			recipientId: string;
			approverId: string;
			replyBy: string | null;
		} | null;
		changed?: () => Promise<void>;
	} = $props();

	let choices = $state.raw<{ members: Pickable[]; recipients: Pickable[] } | null>(null);
	/** People outside whom other projects know: chosen here, they join the distribution list. */
	let book = $state.raw<AnswerOf<'addressBook'>['people']>([]);
	let building = $state<{ id: string; number: number; title: string }[]>([]);
	let into = $state('');
	// Nothing is chosen that nobody chose.
	const before = untrack(() => edit);
	let title = $state(before?.title ?? '');
	let purpose = $state<Purpose | ''>(before?.purpose ?? '');
	let recipient = $state.raw<Picked | null>(null);
	let approver = $state.raw<Picked | null>(null);
	/** Name and company of a recipient who is not on the distribution list yet. */
	let fresh = $state({ name: '', company: '' });
	const isFresh = $derived(recipient !== null && !isKnown(recipient));
	let replyBy = $state(before?.replyBy ?? '');
	onMount(() => {
		void attempt(async () => {
			const people = await cupboard.people({ project });
			const { releases } = await cupboard.releases({ project });
			building = releases.filter((r) => r.state === 'building');
			choices = {
				recipients: people.recipients.map(({ company, ...one }) =>
					personOf({ ...one, outside: true, note: company })
				),
				members: membersOf(people.members.filter((m) => m.id !== me && !m.blockedAt && !m.outside))
			};
			const held = <T extends { id: string }>(list: readonly T[], id?: string) =>
				list.find((one) => one.id === id) ?? null;
			recipient ??= held(choices.recipients, before?.recipientId);
			approver ??= held(choices.members, before?.approverId);
			book = (await cupboard.addressBook({ project })).people.filter(
				(one) => one.outside && !people.recipients.some((known) => known.email === one.email)
			);
		});
	});

	/** Who gets it, by what the picker offers: the distribution list, and beside it the address book. */
	const offered = $derived([
		...(choices?.recipients ?? []),
		...book.map(({ name, email, company }) => ({
			...personOf({
				id: email,
				name,
				email,
				outside: true,
				note: [company, 'from the address book'].filter(Boolean).join(', ')
			})
		}))
	]);
	function choose(one: Picked | null) {
		const known = one && book.find((b) => b.email === ('id' in one ? one.id : one.email));
		recipient = known ? { email: known.email } : one;
		fresh = { name: known?.name ?? '', company: known?.company ?? '' };
	}
	/** The id of who gets it; somebody new joins the distribution list first. */
	async function recipientId(): Promise<string> {
		if (recipient && isKnown(recipient)) return recipient.id;
		const { email } = recipient!;
		const { id } = await cupboard.addRecipient({ project, email, ...fresh });
		recipient = personOf({ id, email, name: fresh.name, outside: true, note: fresh.company });
		choices = { ...choices!, recipients: [...choices!.recipients, recipient] };
		return id;
	}
	async function submit() {
		if (edit) {
			await cupboard.changeRelease({
				release: edit.id,
				title,
				purpose: purpose as Purpose,
				recipient: await recipientId(),
				approver: (approver as Pickable).id,
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
				recipient: await recipientId(),
				approver: (approver as Pickable).id,
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
						bind:value={purpose}
						placeholder="choose what it is for"
						required
					/></label
				>
				<DateField label="Reply asked by" bind:value={replyBy} />
			</div>
			<PersonPicker
				label="To"
				known={offered}
				newcomers
				bind:value={() => recipient, choose}
				placeholder="Name, or a mail address for somebody new"
				required
			/>
			{#if isFresh}<div class="grid grid-cols-2 gap-3 border-l-4 border-plank-2 pl-3">
					<Field label="Name" name="name" bind:value={fresh.name} maxlength={180} required />
					<Field label="Company" name="company" bind:value={fresh.company} maxlength={180} required />
					<p class="col-span-2 text-[12px] text-ink-2">
						They join the distribution list with it. They need no account.
					</p>
				</div>{/if}
			<PersonPicker
				label="Approved by"
				known={choices?.members ?? []}
				bind:value={approver}
				placeholder="A second person: type a name"
				required
			/>
		{/if}
		{#if edit}<p class="text-[12px] text-ink-2">
				Whoever has approved it is asked again, and sees what changed.
			</p>{/if}
	</Form>
</Dialog>
