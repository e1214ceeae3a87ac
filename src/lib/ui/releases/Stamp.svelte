<script lang="ts">
	import { dayText } from '../platform/words';

	/** A rubber stamp: what was done, the day, and by whom. */
	let { word, at, name }: { word: string; at: string; name: string } = $props();
	const short = $derived(
		name
			.split(' ')
			.map((w, i, all) => (i < all.length - 1 ? w[0] : w))
			.join(' ')
	);
</script>

<span
	class="inline-block -rotate-2 border-2 border-done px-1.5 py-0.5 text-[11.5px] font-bold tracking-wide text-done uppercase [font-stretch:108%]"
	>{word} {dayText(at)} · {short}</span
>
