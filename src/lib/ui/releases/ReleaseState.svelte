<script lang="ts">
	import { RELEASE_STATE_LABEL } from '../../core/releases';

	/** The state of a release as a word on its colour. */
	let { state, step = '' }: { state: keyof typeof LOOK; /** Such as “step 2 of 3”. */ step?: string } =
		$props();
	const LOOK: Record<keyof typeof RELEASE_STATE_LABEL, string> = {
		building: 'bg-rule-2 text-ink',
		'in-review': 'bg-wait-soft text-wait',
		approved: 'bg-done-soft text-done',
		issued: 'bg-done-soft text-done',
		cancelled: 'bg-rule-2 text-ink-2',
		superseded: 'bg-fault-soft text-fault'
	};
</script>

<span class="tag {LOOK[state]}">{RELEASE_STATE_LABEL[state]}{step ? `, ${step}` : ''}</span>
