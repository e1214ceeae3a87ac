<script lang="ts">
	import Field from '../kit/Field.svelte';
	import Form from '../kit/Form.svelte';
	import { toast } from '../kit/toast';
	import { cupboard } from '../../client/cupboard';
	import { attempt } from '../platform/api';
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

	$effect(() => {
		if (!pass) return;
		const asked = pass.id;
		[link, emails, message] = ['', '', ''];
		void attempt(async () => {
			const known = await cupboard.passAddress({ project: projectId, pass: pass!.id });
			if (pass?.id === asked) [link, emails] = [known.link, known.emails.join(', ')];
		});
	});

	async function send() {
		const { mailed } = await cupboard.sendPass({
			project: projectId,
			pass: pass!.id,
			emails: emails.split(/[\s,;]+/).filter(Boolean),
			message
		});
		pass = null;
		toast(`The pass went to ${plural(mailed, 'address', 'addresses')}.`);
		await done();
	}
</script>

<Dialog
	bind:open={() => pass !== null, (value) => !value && (pass = null)}
	title="Pass to {pass?.name ?? ''} for {pass?.holder ?? ''}"
>
	<Form act={send} button="Send by mail" cancel={() => (pass = null)}>
		{#if link}<CopyLine label="Link" value={link} />{/if}
		<Field label="Send it to" name="emails" bind:value={emails} required lines={2} />
		{#if pass?.audience === 'named'}<p class="text-[12px] text-ink-2">
				It is for the people it names; others are added under “Change”.
			</p>{/if}
		<Field label="Message" name="message" bind:value={message} maxlength={2000} lines={3} />
	</Form>
</Dialog>
