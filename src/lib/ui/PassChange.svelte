<script lang="ts">
	import { toast } from 'svelte-sonner';
	import { call, CallError, sentenceOf } from './api';
	import Dialog from './Dialog.svelte';

	interface Given {
		id: string;
		holder: string;
		name: string;
		release: number | null;
		audience: 'named' | 'accounts' | 'anyone';
		emails: string[];
		locked: boolean;
		endsAt: string;
		maxUses: number | null;
		mayTake: boolean;
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

	const dayOf = (at: string) =>
		new Intl.DateTimeFormat('sv-SE', { timeZone, dateStyle: 'short' }).format(new Date(at));
	let whom = $state('');
	let audience = $state<Given['audience']>('named');
	let emails = $state('');
	let password = $state('');
	let noPassword = $state(false);
	let until = $state('');
	let maxUses = $state<number | null>(null);
	let take = $state(false);
	let stamped = $state(false);
	let withMarks = $state(false);
	let fault = $state('');
	let wider = $state<string[]>([]);
	$effect(() => {
		if (!pass) return;
		[whom, audience, emails, until] = [
			pass.holder,
			pass.audience,
			pass.emails.join(', '),
			dayOf(pass.endsAt)
		];
		[maxUses, take, stamped, password, noPassword] = [pass.maxUses, pass.mayTake, pass.stamped, '', false];
		[withMarks, fault, wider] = [pass.withMarks, '', []];
	});
	// Another change is another question.
	$effect(() => {
		void [audience, emails, password, noPassword, until, maxUses, take, stamped];
		wider = [];
	});

	async function save(event: SubmitEvent) {
		event.preventDefault();
		if (!pass) return;
		fault = '';
		try {
			await call('PATCH', `/projects/${projectId}/passes/${pass.id}`, {
				for: whom,
				audience,
				emails: audience === 'accounts' ? [] : emails.split(/[\s,;]+/).filter(Boolean),
				...(password ? { password } : noPassword ? { password: null } : {}),
				...(until === dayOf(pass.endsAt) ? {} : { until }),
				maxUses: maxUses || null,
				...(pass.release ? {} : { mayTake: take, stamped: take && stamped, withMarks: take && withMarks }),
				wider: wider.length > 0
			});
			pass = null;
			toast('The pass is changed.');
			await done();
		} catch (error) {
			const more = error instanceof CallError ? (error.facts.wider as string[] | undefined) : undefined;
			if (more && !wider.length) wider = more;
			else fault = sentenceOf(error);
		}
	}
</script>

<Dialog
	bind:open={() => pass !== null, (value) => !value && (pass = null)}
	title="Change the pass to {pass?.name ?? ''}"
>
	<form onsubmit={save} class="space-y-3">
		<label class="block"
			><span class="label">For whom, as you call them</span><input
				class="field"
				bind:value={whom}
				required
				maxlength="180"
			/></label
		>
		<fieldset>
			<legend class="label">Who may use it</legend>
			{#each [['named', 'Named people only; they prove their mail address by a code'], ['accounts', 'People with an account'], ['anyone', 'Anyone who holds the link']] as [value, word] (value)}
				<label class="flex items-center gap-2 py-0.5"
					><input
						type="radio"
						class="accent-act"
						name="audience"
						{value}
						bind:group={audience}
					/>{word}</label
				>
			{/each}
		</fieldset>
		{#if audience === 'named'}<label class="block"
				><span class="label">Their mail addresses</span><textarea
					class="field min-h-[34px]"
					rows="1"
					bind:value={emails}
					required></textarea></label
			>{/if}
		{#if pass && !pass.release}<fieldset>
				<legend class="label">They may</legend>
				<label class="flex items-center gap-2 py-0.5"
					><input type="radio" class="accent-act" name="take" value={false} bind:group={take} />look only</label
				>
				<label class="flex items-center gap-2 py-0.5"
					><input type="radio" class="accent-act" name="take" value={true} bind:group={take} />look and take</label
				>
				{#if take}<label class="ml-6 flex items-center gap-2 py-0.5"
						><input type="checkbox" class="accent-act" bind:checked={stamped} />copies carry a stamp with the
						name and the day</label
					><label class="ml-6 flex items-center gap-2 py-0.5"
						><input type="checkbox" class="accent-act" bind:checked={withMarks} />copies of sheets carry the
						marks on them (as PDF)</label
					>{/if}
			</fieldset>{/if}
		<div class="grid grid-cols-3 gap-3">
			<label
				><span class="label">Until</span><input
					class="field"
					type="date"
					bind:value={until}
					required
				/></label
			>
			<label
				><span class="label">Uses, at most</span><input
					class="field"
					type="number"
					min="1"
					max="10000"
					placeholder="no limit"
					bind:value={maxUses}
				/></label
			>
			<label
				><span class="label">{pass?.locked ? 'Another password' : 'Password, if any'}</span><input
					class="field"
					bind:value={password}
					minlength="8"
					autocomplete="off"
				/></label
			>
		</div>
		{#if pass?.locked && !password}<label class="flex items-center gap-2"
				><input type="checkbox" class="accent-act" bind:checked={noPassword} />ask for no password any more</label
			>{/if}
		{#if wider.length}<p role="alert" class="border border-lock bg-lock-soft px-3 py-2">
				This makes the pass wider: {wider.join('; ')}.
			</p>{/if}
		{#if fault}<p role="alert" class="text-fault">{fault}</p>{/if}
		<div class="flex justify-end gap-2">
			<button type="button" class="button" onclick={() => (pass = null)}>Cancel</button><button
				class="button button-act">{wider.length ? 'Make it wider' : 'Change the pass'}</button
			>
		</div>
	</form>
</Dialog>
