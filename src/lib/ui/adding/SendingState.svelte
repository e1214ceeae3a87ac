<script lang="ts">
	import Progress from '../kit/Progress.svelte';
	import type { Sending } from './sending.svelte';
	import { sizeText, timeLeft } from '../platform/words';

	/** How far one file came on its way to the server, with what can be done about it. */
	let { sending }: { sending: Sending } = $props();

	const WORD = {
		waiting: 'waiting',
		sending: '',
		paused: 'paused',
		broken: 'line is down, tries again',
		done: 'received',
		fault: ''
	};
	const speed = $derived(
		sending.state === 'sending' && sending.speed > 0
			? `${sizeText(sending.speed)} a second${sending.left === null ? '' : `, ${timeLeft(sending.left)}`}`
			: ''
	);
	const under = $derived(['waiting', 'sending', 'broken'].includes(sending.state));
</script>

<span class="flex flex-wrap items-baseline gap-x-2 text-[11.5px]">
	{#if sending.state === 'fault'}<span class="text-fault">{sending.fault}</span>
	{:else}
		{#if sending.state !== 'done'}<Progress
				label="Sent of {sending.name}"
				value={sending.sent}
				max={sending.file.size}
			/>{/if}
		<span class="text-ink-2">{sizeText(sending.sent)} of {sizeText(sending.file.size)}</span>
		<span class={sending.state === 'broken' ? 'text-lock' : 'text-ink-2'}>{WORD[sending.state] || speed}</span
		>
		{#if under}<button type="button" class="link ml-auto" onclick={() => void sending.pause()}>Pause</button>
		{:else if sending.state === 'paused'}<button
				type="button"
				class="link ml-auto"
				onclick={() => sending.resume()}>Go on</button
			>{/if}
	{/if}
</span>
