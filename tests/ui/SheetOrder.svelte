<script lang="ts">
	import OrderedList from '../../src/lib/ui/kit/OrderedList.svelte';

	let { names }: { names: string[] } = $props();
	// svelte-ignore state_referenced_locally
	let items = $state(names.map((name) => ({ id: name, name })));
</script>

<OrderedList label="Sheets" bind:items>{#snippet row(one)}<b>{one.name}</b>{/snippet}</OrderedList>
<p id="order">{items.map((one) => one.name).join('')}</p>
