<script lang="ts">
	import { NUMBER_COLUMN } from '../kit/table';
	import Table from '../kit/Table.svelte';
	import Field from '../kit/Field.svelte';
	import Form from '../kit/Form.svelte';
	import { releaseNumber } from '../../core/releases';
	import { PURPOSE_LABEL, type Purpose } from '../../core/revisions/revisions';
	import { cupboard } from '../../client/cupboard';
	import Dialog from '../kit/Dialog.svelte';
	import { dayText, plural } from '../platform/words';

	/** Says once more everything that issuing a release will do; its number is typed, since nothing of it can be called back. */
	let {
		open = $bindable(false),
		release,
		items,
		issued
	}: {
		open: boolean;
		release: {
			id: string;
			number: number;
			title: string;
			purpose: Purpose;
			replyBy: string | null;
			recipient: { name: string; company: string; email: string };
			approver: string;
		};
		items: { documentId: string; number: string; label: string; to: string; supersedes: string | null }[];
		issued: (pass: string) => Promise<void>;
	} = $props();

	let typed = $state('');
	let days = $state(60);
	let asks = $state<'nothing' | 'code' | 'password'>('nothing');
	let password = $state('');
	const number = $derived(releaseNumber(release.number));
	const fits = $derived(typed.trim() !== '' && Number(typed) === release.number);
	const replaced = $derived(items.filter((i) => i.supersedes));
	const becomes = $derived(['construction', 'as-built'].includes(release.purpose) ? 'Published' : 'Shared');

	async function submit() {
		const { pass } = await cupboard.issueRelease({
			release: release.id,
			number: Number(typed),
			passDays: days,
			asks,
			password: asks === 'password' ? password : null
		});
		open = false;
		await issued(pass);
	}
</script>

<Dialog bind:open title="Issue release {number}?">
	<Form act={submit} button="Issue {number}" cancel={() => (open = false)} disabled={!fits}>
		<dl class="grid grid-cols-[110px_1fr] gap-x-3 gap-y-1 [&_dt]:text-ink-2">
			<dt>Goes to</dt>
			<dd>
				<b class="font-semibold">{release.recipient.name}, {release.recipient.company}</b>
				<span class="text-ink-2">{release.recipient.email}, by a pass of their own</span>
			</dd>
			<dt>Purpose</dt>
			<dd>{PURPOSE_LABEL[release.purpose]}; the documents become {becomes}</dd>
			<dt>They see</dt>
			<dd>
				the cover note and {plural(items.length, 'document')}, each to download{release.replyBy
					? `; a reply is asked by ${dayText(release.replyBy)}`
					: ''}
			</dd>
			<dt>Approved by</dt>
			<dd>{release.approver}</dd>
			<dt>Superseded</dt>
			<dd>{replaced.length ? replaced.map((i) => `${i.number} ${i.supersedes}`).join(', ') : 'nothing'}</dd>
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
					}
				]}
			/>
		</div>
		<fieldset>
			<legend class="label">Before it opens, the pass asks for</legend>
			<div class="flex flex-wrap items-center gap-x-4 gap-y-1">
				{#each [['nothing', 'nothing'], ['code', 'a code it mails to them'], ['password', 'a password']] as [value, word] (value)}
					<label class="flex items-center gap-2"
						><input type="radio" class="accent-act" name="asks" {value} bind:group={asks} />{word}</label
					>
				{/each}
				{#if asks === 'password'}<input
						class="field w-[180px]"
						aria-label="Password of the pass"
						bind:value={password}
						minlength="8"
						autocomplete="off"
						required
					/>{/if}
			</div>
		</fieldset>
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
