<script lang="ts">
	import Select from '../kit/Select.svelte';
	import Dialog from '../kit/Dialog.svelte';

	/** Asks how long something on the sheet really is; dimensions and areas of the page follow. */
	let { open = $bindable(false), set }: { open: boolean; set: (real: number, unit: string) => void } =
		$props();
	let real = $state<number | null>(null);
	let unit = $state('m');
	function submit(event: SubmitEvent) {
		event.preventDefault();
		if (!real || real <= 0) return;
		set(real, unit);
		open = false;
	}
</script>

<Dialog bind:open title="How long is this really?">
	<form class="flex items-end gap-2" onsubmit={submit}>
		<label class="flex-1"
			><span class="label">Length</span><input
				class="field"
				type="number"
				min="0.000001"
				step="any"
				required
				bind:value={real}
			/></label
		>
		<label
			><span class="label">Unit</span><Select
				choices={['mm', 'cm', 'm', 'km', 'in', 'ft'].map((one) => ({ value: one, label: one }))}
				bind:value={unit}
			/></label
		>
		<button class="button button-act">Set the scale of this page</button>
	</form>
</Dialog>
