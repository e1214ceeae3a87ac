<script lang="ts">
	import LockIcon from '@lucide/svelte/icons/lock';
	import type { LockRow } from '../../core/documents/rows';
	import { whenText } from '../platform/words';

	/** Who has a document in hand, in words and a shape; past its end in the colour of faults. */
	let { lock, compact = false }: { lock: LockRow; compact?: boolean } = $props();
</script>

<span class="inline-flex items-center gap-1 whitespace-nowrap">
	<span class="tag {lock.stale ? 'bg-fault-soft text-fault' : 'bg-lock-soft text-lock'}">
		<LockIcon size={11} strokeWidth={2.5} aria-hidden="true" />
		{lock.mine ? 'You' : lock.holder}
	</span>
	{#if !compact}<span class="text-[11.5px] text-ink-2"
			>since {whenText(lock.since).replace('today ', '')}{lock.stale ? ', stale' : ''}</span
		>{/if}
</span>
