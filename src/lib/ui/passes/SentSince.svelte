<script lang="ts">
	import type { AnswerOf } from '../../client/cupboard';
	import { releaseNumber } from '../../core/releases';

	/** Where whoever holds what is superseded has the new one: in a later release that was sent to them. */
	let { since }: { since: AnswerOf<'passView'>['items'][number]['since'] } = $props();
</script>

{#if since}, {#if since.link}<a class="link" href={since.link}
			>{since.label} is in release {releaseNumber(since.release)}</a
		>{:else}{since.label} was sent to you with release {releaseNumber(since.release)}{/if}{/if}
