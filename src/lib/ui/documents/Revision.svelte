<script lang="ts">
	/** A revision label: issued ones are filled ink boxes, working saves dashed boxes. */
	let { label, issued }: { label: string; issued: boolean } = $props();
</script>

<span
	class="inline-block rounded-sm border px-1.5 font-mono text-[12px] leading-[18px] font-semibold {issued
		? 'border-ink bg-ink text-sheet print:text-ink'
		: 'border-dashed border-ink-2 text-ink'}"
	title={issued ? 'Issued revision' : 'Working save'}>{label}</span
>
