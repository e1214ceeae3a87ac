<script lang="ts">
	import Field from '../../src/lib/ui/kit/Field.svelte';
	import Form from '../../src/lib/ui/kit/Form.svelte';

	let { act }: { act: () => Promise<unknown> } = $props();
	let number = $state('VFT-0101');
	let title = $state('Pit wall');
</script>

<Form {act} button="Change">
	<Field label="Number" name="number" bind:value={number} />
	<Field label="Title" name="title" bind:value={title} />
</Form>
