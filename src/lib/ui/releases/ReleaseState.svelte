<script lang="ts">
	/** The state of a release as a word on its colour. */
	let { state, step = '' }: { state: string; /** Such as “step 2 of 3”. */ step?: string } = $props();
	const LOOK: Record<string, [string, string]> = {
		building: ['being built', 'bg-rule-2 text-ink'],
		'in-review': ['in review', 'bg-wait-soft text-wait'],
		approved: ['approved', 'bg-done-soft text-done'],
		issued: ['issued', 'bg-done-soft text-done'],
		cancelled: ['cancelled', 'bg-rule-2 text-ink-2'],
		superseded: ['superseded', 'bg-fault-soft text-fault']
	};
</script>

<span class="tag {LOOK[state]?.[1] ?? ''}">{LOOK[state]?.[0] ?? state}{step ? `, ${step}` : ''}</span>
