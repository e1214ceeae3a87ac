<script lang="ts">
	import Progress from '../kit/Progress.svelte';
	import { queue } from './sending.svelte';
	import SendingState from './SendingState.svelte';
	import { plural, sizeText, timeLeft } from '../platform/words';

	/** What is on its way to the server, whichever page one is on. */
	let open = $state(false);
	const going = $derived(queue.files.filter((f) => !['done', 'fault'].includes(f.state)));
	const failed = $derived(queue.files.filter((f) => f.state === 'fault' && f.fault !== 'Cancelled.'));
	const size = $derived(going.reduce((n, f) => n + f.file.size, 0));
	const sent = $derived(going.reduce((n, f) => n + f.sent, 0));
	const speed = $derived(going.reduce((n, f) => n + f.speed, 0));

	const down = $derived(
		going.length > 0 &&
			going.every((f) => ['broken', 'paused'].includes(f.state)) &&
			going.some((f) => f.state === 'broken')
	);

	$effect(() => {
		if (!going.length) return;
		const warn = (event: BeforeUnloadEvent) => event.preventDefault();
		addEventListener('beforeunload', warn);
		return () => removeEventListener('beforeunload', warn);
	});
</script>

{#if going.length || failed.length}
	<section
		class="fixed right-3 bottom-3 z-40 w-[340px] max-w-[calc(100vw-24px)] border border-ink bg-sheet shadow-lg"
		aria-label="Files on their way"
	>
		<button
			class="flex w-full items-center gap-2 px-3 py-1.5 text-left"
			aria-expanded={open}
			onclick={() => (open = !open)}
		>
			<b class="font-semibold"
				>{going.length
					? `Sending ${plural(going.length, 'file')}`
					: plural(failed.length, 'file') + ' not sent'}</b
			>
			<span class="ml-auto text-[12px] text-ink-2"
				>{going.length
					? `${sizeText(sent)} of ${sizeText(size)}${down ? ', line is down' : speed > 0 ? `, ${timeLeft((size - sent) / speed)}` : ''}`
					: ''}</span
			>
			<span aria-hidden="true">{open ? '▾' : '▴'}</span>
		</button>
		{#if going.length}<Progress label="Sent in all" value={sent} max={size} />{/if}
		{#if open}
			<ul class="max-h-[40vh] overflow-auto border-t border-rule">
				{#each [...going, ...failed] as file, i (i)}
					<li class="border-b border-rule-2 px-3 py-1">
						<span class="flex items-baseline gap-2"
							><span class="min-w-0 flex-1 truncate" title={file.name}>{file.name}</span>
							{#if file.state !== 'fault'}<button class="link text-[12px]" onclick={() => void file.cancel()}
									>Cancel</button
								>{/if}</span
						>
						<SendingState sending={file} />
					</li>
				{/each}
			</ul>
			{#if failed.length}<p class="p-2">
					<button class="button" onclick={() => queue.tidy()}>Forget those not sent</button>
				</p>{/if}
		{/if}
	</section>
{/if}
