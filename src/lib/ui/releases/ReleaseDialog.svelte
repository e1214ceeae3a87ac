<script lang="ts">
	import Field from '../kit/Field.svelte';
	import Form from '../kit/Form.svelte';
	import DateField from '../kit/DateField.svelte';
	import Select from '../kit/Select.svelte';
	import { onMount, untrack } from 'svelte';
	import { goto } from '$app/navigation';
	import { PURPOSE_LABEL, type Purpose } from '../../core/revisions/revisions';
	import { releaseNumber } from '../../core/releases';
	import { cupboard } from '../../client/cupboard';
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

	interface Choices {
		members: { id: string; name: string; outside?: boolean; blockedAt?: string | null }[];
		recipients: { id: string; name: string; company: string }[];
	}
	let choices = $state<Choices | null>(null);
	let building = $state<{ id: string; number: number; title: string }[]>([]);
	let into = $state('');
	// Nothing is chosen that nobody chose.
	const before = untrack(() => edit);
	let title = $state(before?.title ?? '');
	let purpose = $state<Purpose | ''>(before?.purpose ?? '');
	let recipient = $state(before?.recipientId ?? '');
	let approver = $state(before?.approverId ?? '');
	let replyBy = $state(before?.replyBy ?? '');
	onMount(() => {
		void attempt(async () => {
			const people = await cupboard.people({ project });
			const { releases } = await cupboard.releases({ project });
			building = releases.filter((r) => r.state === 'building');
			choices = {
				recipients: people.recipients,
				members: [
					...new Map(
						people.members.filter((m) => m.id !== me && !m.blockedAt && !m.outside).map((m) => [m.id, m])
					).values()
				]
			};
		});
	});

	async function submit() {
		if (edit) {
			await cupboard.changeRelease({
				release: edit.id,
				title,
				purpose: purpose as Purpose,
				recipient,
				approver,
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
				recipient,
				approver,
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
			<label class="block"
				><span class="label">To</span><Select
					choices={[
						...(choices?.recipients ?? []).map((r) => ({ value: r.id, label: `${r.name}, ${r.company}` }))
					]}
					bind:value={recipient}
					placeholder="choose who gets it"
					required
				/></label
			>
			{#if choices && !choices.recipients.length}<p class="text-lock">
					Nobody is on the distribution list yet. Add the client on the page People first.
				</p>{/if}
			<label class="block"
				><span class="label">Approved by</span><Select
					choices={(choices?.members ?? []).map((m) => ({ value: m.id, label: m.name }))}
					bind:value={approver}
					placeholder="choose a second person"
					required
				/></label
			>
		{/if}
		{#if edit}<p class="text-[12px] text-ink-2">
				Whoever has approved it is asked again, and sees what changed.
			</p>{/if}
	</Form>
</Dialog>
