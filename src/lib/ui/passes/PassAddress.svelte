<script lang="ts">
	import { toast } from '../kit/toast';
	import { cupboard } from '../../client/cupboard';
	import { attempt, sentenceOf } from '../platform/api';
	import CopyLine from '../kit/CopyLine.svelte';
	import Dialog from '../kit/Dialog.svelte';
	import { plural } from '../platform/words';

	/** Looks the address of an own pass up again and sends it by mail with a message. */
	let {
		pass = $bindable(null),
		projectId,
		done
	}: {
		pass: { id: string; holder: string; name: string; audience: string } | null;
		projectId: string;
		done: () => Promise<void> | void;
	} = $props();

	let link = $state('');
	let emails = $state('');
	let message = $state('');
	let fault = $state('');

	$effect(() => {
		if (!pass) return;
		const asked = pass.id;
		[link, emails, message, fault] = ['', '', '', ''];
		void attempt(async () => {
			const known = await cupboard.passAddress({ project: projectId, pass: pass!.id });
			if (pass?.id === asked) [link, emails] = [known.link, known.emails.join(', ')];
		});
	});

	async function send(event: SubmitEvent) {
		event.preventDefault();
		fault = '';
		try {
			const { mailed } = await cupboard.sendPass({
				project: projectId,
				pass: pass!.id,
				emails: emails.split(/[\s,;]+/).filter(Boolean),
				message
			});
			pass = null;
			toast(`The pass went to ${plural(mailed, 'address', 'addresses')}.`);
			await done();
		} catch (error) {
			fault = sentenceOf(error);
		}
	}
</script>

<Dialog
	bind:open={() => pass !== null, (value) => !value && (pass = null)}
	title="Pass to {pass?.name ?? ''} for {pass?.holder ?? ''}"
>
	<form onsubmit={send} class="space-y-3">
		{#if link}<CopyLine label="Link" value={link} />{/if}
		<label class="block"
			><span class="label">Send it to</span><textarea
				class="field min-h-[34px]"
				rows="1"
				bind:value={emails}
				required></textarea></label
		>
		{#if pass?.audience === 'named'}<p class="text-[12px] text-ink-2">
				It is for the people it names; others are added under “Change”.
			</p>{/if}
		<label class="block"
			><span class="label">Message</span><textarea
				class="field min-h-[80px]"
				rows="3"
				maxlength="2000"
				bind:value={message}></textarea></label
		>
		{#if fault}<p role="alert" class="text-fault">{fault}</p>{/if}
		<div class="flex justify-end gap-2">
			<button type="button" class="button" onclick={() => (pass = null)}>Close</button><button
				class="button button-act">Send by mail</button
			>
		</div>
	</form>
</Dialog>
