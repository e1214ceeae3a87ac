<script lang="ts">
	import { initials } from '../platform/words';

	/** Initials in a box: dark for departments and groups, dashed for everything outside. */
	let {
		name,
		code,
		many = false,
		outside = false
	}: { name: string; code?: string; many?: boolean; outside?: boolean } = $props();
</script>

<span
	aria-hidden="true"
	class="grid h-6 w-6 shrink-0 place-items-center rounded-sm text-[10px] font-bold {outside
		? 'border border-dashed border-ink-2'
		: many
			? 'bg-frame text-on-frame'
			: 'bg-rule-2'}">{code ?? initials(name)}</span
>
