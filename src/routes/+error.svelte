<script lang="ts">
	import { page } from '$app/state';
	import Gate from '$lib/ui/shell/Gate.svelte';

	/** How often a page that is away for a moment asks again, in milliseconds. */
	const AGAIN = 3_000;
	const away = $derived(page.status === 503);
	/** Who comes by a link has no account, and needs to hear nothing of shelves. */
	const byLink = $derived(/^\/(pass|hatch|invited|renew)\//.test(page.url.pathname));
	$effect(() => {
		if (!away) return;
		const timer = setInterval(() => {
			void fetch(location.href, { headers: { accept: 'text/html' }, cache: 'no-store' }).then(
				(answer) => answer.status !== 503 && location.reload(),
				() => {}
			);
		}, AGAIN);
		return () => clearInterval(timer);
	});
</script>

<Gate
	title={page.status === 404
		? byLink
			? 'This link does not open'
			: 'Nothing here'
		: away
			? 'Cupboard is away for a moment'
			: 'This did not work'}
>
	<p>{page.error?.message}</p>
	{#if away}<p class="mt-2 text-ink-2">
			This page asks again by itself every few seconds, and comes back as soon as it can.
		</p>{/if}
	{#if page.status === 404 && !byLink}<p class="mt-2 text-ink-2">
			It may have been moved or removed, or your access to it may have ended. The activity and Removed tell
			what happened to what you may look at.
		</p>{/if}
	{#if !byLink}<p class="mt-4"><a class="button" href="/">To the shelves</a></p>{/if}
</Gate>
