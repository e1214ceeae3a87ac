<script lang="ts">
	import { refreshAll } from '$lib/ui/platform/refresh';
	import { onMount } from 'svelte';
	import PassGate from '$lib/ui/passes/PassGate.svelte';
	import PassPlace from '$lib/ui/passes/PassPlace.svelte';
	import PassRelease from '$lib/ui/passes/PassRelease.svelte';

	let { data } = $props();

	// A pass that is withdrawn or ends stops working in tabs that are open, too.
	onMount(() => {
		const source = new EventSource(`/pass/${data.secret}/live`);
		source.onmessage = () => void refreshAll();
		// What happened while the line was broken is told by nobody.
		let before = false;
		source.onopen = () => {
			if (before) void refreshAll();
			before = true;
		};
		const left = new Date(data.gate.endsAt).getTime() - Date.now();
		const timer = left < 2 ** 31 ? setTimeout(() => void refreshAll(), Math.max(0, left) + 500) : 0;
		return () => {
			source.close();
			clearTimeout(timer);
		};
	});
</script>

{#if data.release}<PassRelease view={data.release} secret={data.secret} />
{:else if data.place}<PassPlace view={data.place} secret={data.secret} />
{:else}<PassGate gate={data.gate} secret={data.secret} />{/if}
