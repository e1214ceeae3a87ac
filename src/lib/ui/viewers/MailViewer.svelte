<script lang="ts">
	import { getContext } from 'svelte';
	import type { ShownMail } from '../../core/files/shown';
	import { KEEP_FILES, type KeepFiles } from './keep-files';
	import { cleanHtml } from './read-office';
	import { toast } from '../kit/toast';
	import { projectZone } from '../platform/project-day';
	import { dayText, plural, sizeText, timeText } from '../platform/words';
	import type { FileWithin } from './shown';

	/** Shows a mail: who wrote to whom, what it says, and the files that came with it. */
	let {
		mail,
		title,
		withheld,
		entries,
		open
	}: {
		mail: ShownMail;
		title: string;
		/** The mail is view only. */
		withheld: boolean;
		/** Where the files that came with it are; null where they are not given out. */
		entries: string | null;
		/** Shows one of them. */
		open: (file: FileWithin) => void;
	} = $props();

	type Attachment = ShownMail['attachments'][number];
	const beside = getContext<KeepFiles | undefined>(KEEP_FILES);
	/** Adds files as documents to the folder that the mail is in; null where one may not. */
	const keep = $derived(beside?.keep ?? null);
	let busy = $state(false);
	let chosen = $state<string[]>([]);
	const address = (name: string) => `${entries}?name=${encodeURIComponent(name)}`;

	async function show({ name, size }: Attachment) {
		const abort = new AbortController();
		const response = await fetch(address(name), { signal: abort.signal });
		const mediaType = response.headers.get('x-media-type') ?? 'application/octet-stream';
		// Only its kind is wanted here; the viewer fetches the file itself.
		abort.abort();
		open({ url: address(name), mediaType, fileName: name, size });
	}
	async function save() {
		busy = true;
		try {
			const files: File[] = [];
			for (const { name } of mail.attachments.filter((one) => chosen.includes(one.name))) {
				const response = await fetch(`${address(name)}&download`);
				if (!response.ok) throw new Error(`${name} could not be fetched. Try again.`);
				files.push(new File([await response.blob()], name));
			}
			keep?.(files);
		} catch (error) {
			toast.error((error as Error).message);
		} finally {
			busy = false;
		}
	}
</script>

<div class="h-full overflow-auto p-6" role="document" aria-label={title}>
	<article class="mx-auto max-w-[880px] border border-rule bg-sheet">
		<dl class="grid grid-cols-[auto_1fr] gap-x-4 gap-y-1 border-b border-rule px-6 py-4">
			{#each mail.head as { label, value } (label)}<dt class="text-ink-2">{label}</dt>
				<dd class="min-w-0 break-words {label === 'Subject' ? 'font-semibold' : ''}">{value}</dd>{/each}
			{#if mail.sent}<dt class="text-ink-2">Sent</dt>
				<dd>
					{dayText(mail.sent, projectZone())}, {timeText(mail.sent, projectZone())} ({projectZone()})
				</dd>{/if}
		</dl>
		{#if mail.attachments.length}
			<section class="border-b border-rule px-6 py-3" aria-label="Attachments">
				<h2 class="mb-1 text-[12px] text-ink-2">{plural(mail.attachments.length, 'attachment')}</h2>
				<ul>
					{#each mail.attachments as one (one.name)}<li class="flex items-center gap-3 py-0.5">
							{#if entries && keep}<input
									type="checkbox"
									class="accent-act"
									aria-label="Choose {one.name}"
									value={one.name}
									bind:group={chosen}
								/>{/if}
							{#if entries}<button class="link min-w-0 truncate text-left" onclick={() => void show(one)}
									>{one.name}</button
								>{:else}<span class="min-w-0 truncate">{one.name}</span>{/if}
							<span class="ml-auto shrink-0 font-mono text-[12px]">{sizeText(one.size)}</span>
							{#if entries}<a class="link shrink-0" href="{address(one.name)}&download" download={one.name}
									>Download</a
								>{/if}
						</li>{/each}
				</ul>
				{#if entries && keep}<p class="mt-2 flex flex-wrap items-center gap-3">
						<button class="button" disabled={busy || !chosen.length} onclick={save}
							>{chosen.length
								? `Save ${plural(chosen.length, 'attachment')} as documents…`
								: 'Save as documents…'}</button
						>
						{#if chosen.length < mail.attachments.length}<button
								class="link"
								onclick={() => (chosen = mail.attachments.map((one) => one.name))}>Choose all</button
							>{/if}
					</p>{/if}
				{#if !entries}<p class="mt-2 text-[12px] text-ink-2">
						{withheld
							? 'View only: attachments are listed, and not given out.'
							: 'Download the mail to open what came with it.'}
					</p>{/if}
			</section>
		{/if}
		{#await cleanHtml(mail.html) then html}
			<div class="mail px-6 py-5">
				<!-- eslint-disable-next-line svelte/no-at-html-tags -- cleaned by DOMPurify in cleanHtml -->
				{@html html}
			</div>
		{/await}
	</article>
</div>

<style>
	.mail :global(p) {
		margin: 2px 0;
		line-height: 1.55;
	}
	.mail :global(table) {
		max-width: 100%;
	}
	.mail :global(blockquote) {
		margin: 6px 0;
		padding-left: 10px;
		border-left: 3px solid var(--rule);
	}
	.mail :global(img) {
		max-width: 100%;
	}
</style>
