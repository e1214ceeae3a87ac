<script lang="ts">
	import type { AnswerOf } from '../../client/cupboard';
	import { releaseNumber } from '../../core/releases';

	/** Where whoever holds what is superseded has a newer one: in a later release that was sent to them. */
	let {
		since,
		newest
	}: {
		since: AnswerOf<'passView'>['items'][number]['since'];
		/** Label of the revision that is current. */
		newest: string;
	} = $props();
	const number = $derived(since && releaseNumber(since.release));
</script>

{#if since}, {#if since.link}<a class="link" href={since.link}
			>{since.label === newest ? 'open it' : `you have ${since.label}`} in release {number}</a
		>{:else}{since.label === newest ? '' : `${since.label} was `}sent to you with release {number}{/if}{/if}
