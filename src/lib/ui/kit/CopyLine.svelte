<script lang="ts">
	import { toast } from './toast';

	/** Something to copy: shown whole, copied with one click. */
	let { label, value }: { label: string; value: string } = $props();
	async function copy() {
		try {
			await navigator.clipboard.writeText(value);
			toast(`${label} copied.`);
		} catch {
			toast('Copying is not possible here; mark the text and copy it.');
		}
	}
</script>

<div class="flex items-end gap-2">
	<label class="min-w-0 flex-1"
		><span class="label">{label}</span><input
			class="field font-mono text-[12px]"
			readonly
			{value}
			onfocus={(e) => e.currentTarget.select()}
		/></label
	>
	<button type="button" class="button" onclick={copy}>Copy</button>
</div>
