<script lang="ts">
	import { familyOf } from '../../core/files/kinds';

	/** Plays sound and film that the browser can play. */
	let {
		url,
		title,
		mediaType,
		failed
	}: { url: string; title: string; mediaType: string; failed: (sentence: string) => void } = $props();
	const cannot = () => failed('This browser cannot play the file.');
</script>

<div class="grid h-full place-items-center p-6">
	{#if familyOf(mediaType) === 'sound'}<audio
			class="w-full max-w-[560px]"
			src={url}
			controls
			aria-label={title}
			onerror={cannot}
		></audio>
	{:else}
		<!-- svelte-ignore a11y_media_has_caption -->
		<video class="max-h-full max-w-full bg-black" src={url} controls aria-label={title} onerror={cannot}
		></video>
	{/if}
</div>
