<script lang="ts">
	import { refresh } from '$lib/ui/platform/refresh';
	import { onMount } from 'svelte';
	import { CHANGES, onTouched } from '$lib/ui/platform/live.svelte';
	import { plural, whenText } from '$lib/ui/platform/words';

	let { data } = $props();
	let chosen = $state<string | null>(null);
	/** Its plain text instead of what most readers of mail show. */
	let asText = $state(false);
	const mail = $derived(data.mails.find((m) => m.id === chosen) ?? data.mails[0]);
	const again = () => refresh('cupboard:outbox');
	onMount(() => onTouched(CHANGES, again));
	// A mail goes out a moment after the act that wrote it.
	$effect(() => {
		if (!data.mails.some((m) => m.state === 'waiting' && !m.trouble)) return;
		const timer = setTimeout(again, 800);
		return () => clearTimeout(timer);
	});
	const stateText = (m: (typeof data.mails)[number]) =>
		m.receivedAt
			? `delivered ${whenText(m.receivedAt)}`
			: m.state === 'sent'
				? `sent ${whenText(m.sentAt!)}`
				: m.trouble
					? 'waiting'
					: 'on its way';
	/** The text in pieces, links apart. */
	const pieces = (text: string) => text.split(/(https?:\/\/\S+)/);
</script>

<svelte:head><title>Outbox · {data.frame.project.name}</title></svelte:head>
<div class="flex h-full flex-col">
	<div class="flex flex-wrap items-baseline gap-3 px-5 py-3">
		<h1 class="text-[21px]">Outbox</h1>
		<p class="text-ink-2">
			{plural(data.mails.length, 'mail')} ·
			{data.server === 'demo'
				? 'delivered to the demo’s own mail server; nothing leaves this machine'
				: data.server === 'set'
					? 'sent by your mail server'
					: 'no mail server is set (SMTP_URL): mail waits here and can be read'}
		</p>
	</div>
	<div
		class="mx-5 mb-4 grid min-h-0 flex-1 border-t border-ink bg-sheet md:grid-cols-[minmax(320px,46%)_1fr]"
	>
		<ul class="overflow-auto border-r border-rule" aria-label="Mails">
			{#each data.mails as m (m.id)}
				<li>
					<button
						class="block w-full border-b border-rule-2 px-3 py-1.5 text-left {m.id === mail?.id
							? 'bg-act-soft'
							: ''}"
						aria-pressed={m.id === mail?.id}
						onclick={() => (chosen = m.id)}
					>
						<span class="flex gap-2"
							><b class="min-w-0 flex-1 truncate font-semibold">{m.subject}</b><span
								class="shrink-0 text-[12px] text-ink-2">{whenText(m.createdAt)}</span
							></span
						>
						<span class="flex gap-2 text-[12px] text-ink-2"
							><span class="min-w-0 flex-1 truncate">to {m.toName}</span><span
								class={m.trouble ? 'text-fault' : ''}>{stateText(m)}</span
							></span
						>
					</button>
				</li>
			{:else}<li class="p-8 text-center text-ink-2">No mail has been written yet.</li>{/each}
		</ul>
		{#if mail}
			<article class="overflow-auto p-5">
				<h2 class="text-[16px]">{mail.subject}</h2>
				<p class="mb-4 border-b border-rule pb-2 text-ink-2">
					to {mail.toName} &lt;{mail.toAddress}&gt; · {stateText(mail)}{mail.attachment
						? `, with ${mail.attachment}`
						: ''}{mail.trouble ? `: ${mail.trouble}` : ''}
					{#if mail.html}<button class="link ml-2" onclick={() => (asText = !asText)}
							>{asText ? 'Show it as received' : 'Show it as plain text'}</button
						>{/if}
				</p>
				{#if mail.html && !asText}<!-- As a reader of mail shows it: by itself, without scripts. -->
					<iframe
						title="The mail as {mail.toName} sees it"
						class="h-[560px] w-full max-w-[640px] border border-rule"
						sandbox="allow-popups allow-popups-to-escape-sandbox"
						srcdoc={mail.html.replace('<head>', '<head><base target="_blank">')}
					></iframe>
				{:else}<div class="max-w-[70ch] leading-relaxed break-words whitespace-pre-wrap">
						{#each pieces(mail.body) as piece, i (i)}{#if i % 2}<a
									class="link text-act"
									href={piece}
									target="_blank"
									rel="noreferrer">{piece}</a
								>{:else}{piece}{/if}{/each}
					</div>{/if}
			</article>
		{/if}
	</div>
</div>
