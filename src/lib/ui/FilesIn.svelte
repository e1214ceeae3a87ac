<script lang="ts">
	import { call, sendFile, sentenceOf } from './api';
	import { plural, sizeText } from './words';

	/** Sends files in from outside: one after the other with progress; what cannot go says why and the rest goes on. */
	let {
		sendTo,
		putIn,
		maxFileBytes,
		endings,
		asksSender = false
	}: {
		sendTo: (name: string) => string;
		putIn: string;
		maxFileBytes: number;
		endings: string[];
		asksSender?: boolean;
	} = $props();

	interface Going {
		file: File;
		sent: number;
		upload: string | null;
		fault: string;
	}
	let sender = $state('');
	let email = $state('');
	let note = $state('');
	let going = $state<Going[]>([]);
	let busy = $state(false);
	let fault = $state('');
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
			going.push({ file, sent: 0, upload: null, fault: wrong });
		}
	}
	async function submit(event: SubmitEvent) {
		event.preventDefault();
		fault = '';
		busy = true;
		for (const one of going) {
			if (one.upload || one.fault) continue;
			try {
				const { upload } = await sendFile(sendTo(one.file.name), one.file, (sent) => (one.sent = sent)).done;
				one.upload = upload;
			} catch (error) {
				one.fault = sentenceOf(error);
			}
		}
		const uploads = going.flatMap((one) => one.upload ?? []);
		try {
			if (uploads.length) {
				await call('POST', putIn, { uploads, note, ...(asksSender ? { sender, email: email || null } : {}) });
				done += uploads.length;
				going = going.filter((one) => one.fault);
				note = '';
			}
		} catch (error) {
			fault = sentenceOf(error);
		}
		busy = false;
	}
</script>

{#if done}<p role="status" class="mb-3 border-l-4 border-done bg-done-soft px-3 py-2">
		{plural(done, 'file')} arrived. Thank you; you can send more.
	</p>{/if}
<form onsubmit={submit} class="space-y-3">
	{#if asksSender}
		<div class="grid grid-cols-2 gap-3">
			<label
				><span class="label">Your name and company</span><input
					class="field"
					bind:value={sender}
					required
					maxlength="180"
					autocomplete="name"
				/></label
			>
			<label
				><span class="label">Mail address, for a reply</span><input
					class="field"
					type="email"
					bind:value={email}
					autocomplete="email"
				/></label
			>
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
			{#each going as one, i (i)}<li class="flex items-center gap-2 py-1">
					<span class="min-w-0 flex-1 truncate">{one.file.name}</span>
					{#if one.fault}<span class="text-fault">{one.fault}</span>
					{:else if one.upload}<span class="text-done">✓ received</span>
					{:else if one.sent}<progress
							class="w-24"
							max={one.file.size}
							value={one.sent}
							aria-label="Sending {one.file.name}"
						></progress>
					{:else}<span class="text-ink-2">{sizeText(one.file.size)}</span>{/if}
					<button
						type="button"
						class="link text-ink-2"
						disabled={busy}
						onclick={() => (going = going.filter((other) => other !== one))}>Leave out</button
					>
				</li>{/each}
		</ul>{/if}
	<label class="block"
		><span class="label">What you want to say with them</span><textarea
			class="field min-h-[34px]"
			rows="1"
			bind:value={note}
			maxlength="2000"></textarea></label
	>
	{#if fault}<p role="alert" class="text-fault">{fault}</p>{/if}
	<button class="button button-act" disabled={busy || !going.some((one) => !one.fault)}
		>{busy ? 'Sending…' : `Put in ${plural(going.filter((one) => !one.fault).length, 'file')}`}</button
	>
</form>
