<script lang="ts" module>
	import type { Audience } from '../../core/passes/passes';

	/** What of a pass is filled in, when it is made and when it is changed. */
	export interface PassTerms {
		whom: string;
		audience: Audience;
		/** As typed: parted by commas, semicolons or white space. */
		emails: string;
		take: boolean;
		stamped: boolean;
		withMarks: boolean;
		until: string;
		maxUses: number | null;
		password: string;
	}

	/** The terms as the API takes them; of a password only what was typed. */
	export const termsGiven = (t: PassTerms) => ({
		for: t.whom,
		audience: t.audience,
		emails: t.audience === 'accounts' ? [] : t.emails.split(/[\s,;]+/).filter(Boolean),
		maxUses: t.maxUses || null,
		mayDownload: t.take,
		stamped: t.take && t.stamped,
		withMarks: t.take && t.withMarks
	});
</script>

<script lang="ts">
	import DateField from '../kit/DateField.svelte';
	let {
		terms = $bindable(),
		mailed,
		whole = false,
		mayGive = true,
		from,
		locked = false
	}: {
		terms: PassTerms;
		/** What the addresses are for when the pass is not for named people; null leaves them out then. */
		mailed: string | null;
		/** What it leads to is given whole, so nothing is to be said of taking. */
		whole?: boolean;
		/** Whether the project lets people outside take at all. */
		mayGive?: boolean;
		/** First day that it may end. */
		from?: string;
		/** Whether it has a password already. */
		locked?: boolean;
	} = $props();

	const WHO: [Audience, string][] = [
		['named', 'Named people only; they prove their mail address by a code'],
		['accounts', 'People with an account'],
		['anyone', 'Anyone who holds the link']
	];
</script>

<label class="block"
	><span class="label">For whom, as you call them</span><input
		class="field"
		bind:value={terms.whom}
		required
		maxlength="180"
	/></label
>
<fieldset>
	<legend class="label">Who may use it</legend>
	{#each WHO as [value, word] (value)}
		<label class="flex items-center gap-2 py-0.5"
			><input
				type="radio"
				class="accent-act"
				name="audience"
				{value}
				bind:group={terms.audience}
			/>{word}</label
		>
	{/each}
</fieldset>
{#if terms.audience === 'named' || (terms.audience === 'anyone' && mailed)}<label class="block"
		><span class="label">{terms.audience === 'named' ? 'Their mail addresses' : mailed}</span><textarea
			class="field min-h-[34px]"
			rows="1"
			bind:value={terms.emails}
			required={terms.audience === 'named'}></textarea></label
	>{/if}
{#if !whole}<fieldset>
		<legend class="label">They may</legend>
		<label class="flex items-center gap-2 py-0.5"
			><input type="radio" class="accent-act" name="take" value={false} bind:group={terms.take} />view only</label
		>
		<label class="flex items-center gap-2 py-0.5"
			><input
				type="radio"
				class="accent-act"
				name="take"
				value={true}
				bind:group={terms.take}
				disabled={!mayGive}
			/>view and download</label
		>
		{#if terms.take}<label class="ml-6 flex items-center gap-2 py-0.5"
				><input type="checkbox" class="accent-act" bind:checked={terms.stamped} />copies carry a stamp with
				the name and the day (PDF and pictures)</label
			><label class="ml-6 flex items-center gap-2 py-0.5"
				><input type="checkbox" class="accent-act" bind:checked={terms.withMarks} />copies of sheets carry the
				marks on them (as PDF)</label
			>{/if}
	</fieldset>{/if}
<div class="grid grid-cols-3 gap-3">
	<DateField label="Until" bind:value={terms.until} min={from} required />
	<label
		><span class="label">Uses, at most</span><input
			class="field"
			type="number"
			min="1"
			max="10000"
			placeholder="no limit"
			bind:value={terms.maxUses}
		/></label
	>
	<label
		><span class="label">{locked ? 'Another password' : 'Password, if any'}</span><input
			class="field"
			bind:value={terms.password}
			minlength="8"
			autocomplete="off"
		/></label
	>
</div>
