<script lang="ts">
	import Field from '../kit/Field.svelte';
	import Form from '../kit/Form.svelte';
	import SendingState from './SendingState.svelte';
	import type { Sending } from './sending.svelte';
	import { plural, sizeText } from '../platform/words';

	/**
	 * Sends files in from outside, with progress; what cannot go says why and the rest goes on. What broke off goes on
	 * where it was, by itself when the line is back, and when the same file is chosen again.
	 */
	let {
		send,
		putIn,
		maxFileBytes,
		endings,
		asksSender = false
	}: {
		send: (file: File) => Sending;
		/** Puts what was received in. Raises what the server answers. */
		putIn: (files: {
			uploads: string[];
			note: string;
			sender: string;
			email: string | null;
		}) => Promise<unknown>;
		maxFileBytes: number;
		endings: string[];
		asksSender?: boolean;
	} = $props();

	interface Going {
		file: File;
		sending: Sending | null;
		upload: string | null;
		/** Why it cannot go at all. */
		fault: string;
	}
	/** As many as are put in at once; what came before one is refused has arrived. */
	const AT_ONCE = 500;
	const faultOf = (one: Going) => one.fault || (one.sending?.state === 'fault' ? one.sending.fault : '');
	let sender = $state('');
	let email = $state('');
	let note = $state('');
	let going = $state<Going[]>([]);
	let done = $state(0);
	let over = $state(false);

	function add(files: FileList | null) {
		for (const file of files ?? []) {
			const ending = file.name.split('.').pop()?.toLowerCase() ?? '';
			const wrong =
				file.size === 0
					? 'The file is empty.'
					: file.size > maxFileBytes
						? `Larger than ${sizeText(maxFileBytes)}.`
						: endings.length && !endings.includes(ending)
							? `Not one of ${endings.map((e) => `.${e}`).join(', ')}.`
							: '';
			going.push({ file, sending: null, upload: null, fault: wrong });
		}
	}
	function leaveOut(one: Going) {
		if (one.sending && !one.upload) void one.sending.cancel();
		going = going.filter((other) => other !== one);
	}
	async function submit() {
		await Promise.all(
			going.map(async (one) => {
				if (one.upload || one.fault) return;
				// What failed by itself is tried again; a line that comes back goes on without being asked.
				if (!one.sending || one.sending.state === 'fault') one.sending = send(one.file);
				one.upload = await one.sending.done.catch(() => null);
			})
		);
		const said = { note, sender, email: email || null };
		const received = () => going.filter((one) => one.upload).slice(0, AT_ONCE);
		for (let some = received(); some.length; some = received()) {
			await putIn({ uploads: some.map((one) => one.upload!), ...said });
			done += some.length;
			going = going.filter((one) => !some.includes(one));
		}
		note = '';
	}
</script>

{#if done}<p role="status" class="mb-3 border-l-4 border-done bg-done-soft px-3 py-2">
		{plural(done, 'file')} arrived. Thank you; you can send more.
	</p>{/if}
<Form
	act={submit}
	onPage
	button="Put in {plural(going.filter((one) => !one.fault).length, 'file')}"
	disabled={!going.some((one) => !one.fault)}
>
	{#if asksSender}
		<div class="grid grid-cols-2 gap-3">
			<Field
				label="Your name and company"
				name="sender"
				required
				maxlength={180}
				autocomplete="name"
				bind:value={sender}
			/>
			<Field
				label="Mail address, for a reply"
				name="email"
				type="email"
				autocomplete="email"
				bind:value={email}
			/>
		</div>
	{/if}
	<label
		class="block cursor-pointer border-2 border-dashed p-5 text-center {over
			? 'border-act bg-act-soft'
			: 'border-rule'}"
		ondragover={(e) => {
			e.preventDefault();
			over = true;
		}}
		ondragleave={() => (over = false)}
		ondrop={(e) => {
			e.preventDefault();
			over = false;
			add(e.dataTransfer?.files ?? null);
		}}
	>
		<span class="font-semibold">Drop files here, or choose them</span>
		<input
			class="sr-only"
			type="file"
			multiple
			aria-label="Choose files"
			onchange={(e) => {
				add(e.currentTarget.files);
				e.currentTarget.value = '';
			}}
		/>
	</label>
	{#if going.length}<ul class="divide-y divide-rule-2 border-y border-rule-2">
			{#each going as one (one)}<li class="flex flex-wrap items-center gap-2 py-1">
					<span class="min-w-0 flex-1 truncate">{one.file.name}</span>
					{#if faultOf(one)}<span class="text-fault">{faultOf(one)}</span>
					{:else if one.upload}<span class="text-done">✓ received</span>
					{:else if one.sending}
						<span class="w-[220px]"><SendingState sending={one.sending} /></span>
					{:else}<span class="text-ink-2">{sizeText(one.file.size)}</span>{/if}
					<button type="button" class="link text-ink-2" onclick={() => leaveOut(one)}>Leave out</button>
				</li>{/each}
		</ul>{/if}
	<Field label="What you want to say with them" name="note" lines={2} bind:value={note} />
</Form>
