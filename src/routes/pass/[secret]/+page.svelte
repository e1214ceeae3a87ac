<script lang="ts">
	import { untrack } from 'svelte';
	import { followPass } from '$lib/ui/passes/line';
	import PassGate from '$lib/ui/passes/PassGate.svelte';
	import PassPlace from '$lib/ui/passes/PassPlace.svelte';
	import PassRelease from '$lib/ui/passes/PassRelease.svelte';

	let { data } = $props();
	untrack(() => followPass(data.secret, data.readAt, data.gate.endsAt));
</script>

{#if data.release}<PassRelease view={data.release} secret={data.secret} />
{:else if data.place}<PassPlace view={data.place} secret={data.secret} />
{:else}<PassGate gate={data.gate} secret={data.secret} />{/if}
