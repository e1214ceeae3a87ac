<script lang="ts">
	import Field from '../kit/Field.svelte';
	import Form from '../kit/Form.svelte';
	import Select from '../kit/Select.svelte';
	import Dialog from '../kit/Dialog.svelte';

	/** Asks how long something on the sheet really is; dimensions and areas of the page follow. */
	let { open = $bindable(false), set }: { open: boolean; set: (real: number, unit: string) => void } =
		$props();
	let real = $state<number | null>(null);
	let unit = $state('m');
	async function submit() {
		if (!real || real <= 0) return;
		set(real, unit);
		open = false;
		await Promise.resolve();
	}
</script>

<Dialog bind:open title="How long is this really?">
	<Form act={submit} button="Set the scale of this page" cancel={() => (open = false)}>
		<Field label="Length" name="length" type="number" min={0.000001} step="any" required bind:value={real} />
		<label
			><span class="label">Unit</span><Select
				choices={['mm', 'cm', 'm', 'km', 'in', 'ft'].map((one) => ({ value: one, label: one }))}
				bind:value={unit}
			/></label
		>
	</Form>
</Dialog>
