<script lang="ts">
	import { NUMBER_COLUMN } from '../kit/table';
	import Table from '../kit/Table.svelte';
	import Field from '../kit/Field.svelte';
	import Form from '../kit/Form.svelte';
	import { EXPECTS_LABEL, PROOF_LABEL, releaseNumber, replyDayOf } from '../../core/releases';
	import { PURPOSE_LABEL, type Purpose } from '../../core/revisions/revisions';
	import { addressOf, cupboard, type AnswerOf } from '../../client/cupboard';
	import { onMount } from 'svelte';
	import { attempt } from '../platform/api';
	import { STATE_LABEL } from '../../core/documents/rows';
	import { stateIssued } from '../../core/documents/state';
	import Dialog from '../kit/Dialog.svelte';
	import { dayText, plural } from '../platform/words';

	/** Says once more everything that issuing a release will do; its number is typed, since nothing of it can be called back. */
	let {
		open = $bindable(false),
		project,
		release,
		recipients,
		approvedBy,
		items,
		issued
	}: {
		open: boolean;
		project: string;
		release: {
			id: string;
			number: number;
			title: string;
			purpose: Purpose;
			replyBy: string | null;
			stamped: boolean;
			withMarks: boolean;
		};
		recipients: AnswerOf<'releaseView'>['recipients'];
		/** Names of those who approved it. */
		approvedBy: string[];
		items: {
			documentId: string;
			number: string;
			label: string;
			to: string;
			supersedes: string | null;
			leaves: string | null;
		}[];
		issued: (passes: AnswerOf<'issueRelease'>['passes']) => Promise<void>;
	} = $props();

	/** So many documents are asked about at a time. */
	const MOST_HELD = 1_000;
	let typed = $state('');
	let days = $state(60);
	/** Of each pass that asks for one, by who gets it. */
	let passwords = $state<Record<string, string>>({});
	const locked = $derived(recipients.filter((one) => one.asks === 'password'));
	const number = $derived(releaseNumber(release.number));
	const fits = $derived(typed.trim() !== '' && Number(typed) === release.number);
	const changed = $derived(items.filter((i) => i.leaves !== null));
	const replaced = $derived(items.filter((i) => i.supersedes));
	/** Which purposes make documents Published, and who outside holds what of these. */
	let publishing = $state.raw<readonly Purpose[]>([]);
	let held = $state.raw<AnswerOf<'holders'> | null>(null);
	onMount(() => {
		void attempt(async () => {
			publishing = (await cupboard.settings({ project })).publishingPurposes;
			held = await cupboard.holders({ project, release: release.id, limit: MOST_HELD });
		});
	});
	const becomes = $derived(STATE_LABEL[stateIssued(release.purpose, publishing)]);
	/** Who holds an earlier revision of a document, by their names. */
	const holdersOf = (document: string) =>
		(held?.rows.find((row) => row.document === document)?.held ?? []).map(
			({ holder }) => held!.holders.find((one) => one.key === holder)!.name
		);

	async function submit() {
		const { passes } = await cupboard.issueRelease({
			release: release.id,
			number: Number(typed),
			passDays: days,
			passwords: locked.map(({ recipient }) => ({ recipient, password: passwords[recipient] ?? '' }))
		});
		open = false;
		await issued(passes);
	}
</script>

<Dialog bind:open title="Issue release {number}?">
	<Form act={submit} button="Issue {number}" cancel={() => (open = false)} disabled={!fits}>
		<dl class="grid grid-cols-[110px_1fr] gap-x-3 gap-y-1 [&_dt]:text-ink-2">
			<dt>Goes to</dt>
			<dd>
				<ul class="space-y-1">
					{#each recipients as one (one.recipient)}{@const day = replyDayOf(release, one)}
						<li>
							<b class="font-semibold">{one.name}, {one.company}</b>
							<span class="break-all text-ink-2">{one.email}</span><span class="block text-[12px]"
								>{one.documents
									? `${one.gets} of ${plural(items.length, 'document')}, and not that there are others`
									: plural(items.length, 'document')}; {EXPECTS_LABEL[one.expects]}{day
									? `, reply by ${dayText(day)}`
									: ''}; their pass asks for {PROOF_LABEL[one.asks]}</span
							>
						</li>{/each}
				</ul>
			</dd>
			<dt>Purpose</dt>
			<dd>{PURPOSE_LABEL[release.purpose]}; the documents become {becomes}</dd>
			<dt>They see</dt>
			<dd>a cover note of their own and what they get, each to download</dd>
			{#if release.stamped || release.withMarks}
				<dt>Leave changed</dt>
				<dd>
					{changed.length
						? `${changed.length} of ${plural(items.length, 'document')}; the originals stay, and the list names both`
						: 'none of them; what is asked for can be put on none'}
				</dd>{/if}
			<dt>Approved by</dt>
			<dd>{approvedBy.join(', ')}</dd>
			<dt>Superseded</dt>
			<dd>
				{#if replaced.length}<ul class="max-h-[120px] overflow-auto">
						{#each replaced as item (item.documentId)}{@const by = holdersOf(item.documentId)}
							<li>
								<span class="font-mono text-[12.5px]">{item.number} {item.supersedes}</span
								>{#if by.length}<span class="text-ink-2">, held by {by.join(', ')}</span>{/if}
							</li>{/each}
					</ul>{:else}nothing{/if}
			</dd>
		</dl>
		<div class="max-h-[220px] overflow-auto border border-rule">
			<Table
				label="What becomes of each document"
				rows={items}
				key={(item) => item.documentId}
				empty="There are no documents."
				columns={[
					NUMBER_COLUMN,
					{
						id: 'goes',
						head: 'Revision',
						text: (item) =>
							item.label === item.to ? `${item.to}, issued before` : `${item.label} → ${item.to}`,
						class: 'font-mono text-[12.5px] whitespace-nowrap'
					},
					...(release.stamped || release.withMarks
						? [{ id: 'leaves', head: 'Leaves', cell: leaves, class: 'text-[12px]' }]
						: [])
				]}
			/>
		</div>
		{#each locked as one (one.recipient)}<Field
				label="Password of the pass of {one.name}, which you tell them another way"
				name="passwords"
				bind:value={() => passwords[one.recipient] ?? '', (to) => (passwords[one.recipient] = to)}
				minlength={8}
				autocomplete="off"
				required
			/>{/each}
		<div class="flex flex-wrap gap-3">
			<Field
				label="The pass works for, in days"
				name="days"
				bind:value={days}
				type="number"
				min={1}
				max={730}
				mono
			/>
			<Field
				label="Type {number} to issue it"
				name="number"
				bind:value={typed}
				autocomplete="off"
				required
				mono
			/>
		</div>
		<p class="text-[12px] text-ink-2">
			Revisions and files are fixed by their hashes, and the mail goes out. What was sent cannot be called
			back.
		</p>
	</Form>
</Dialog>

{#snippet leaves(item: (typeof items)[number])}{#if item.leaves}<a
			class="link"
			target="_blank"
			href={addressOf('releaseOutgoingFile', { release: release.id, document: item.documentId })}
			aria-label="{item.number} as it goes out: {item.leaves}">{item.leaves}</a
		>{:else}<span class="text-ink-2">as it is</span>{/if}{/snippet}
