<script lang="ts">
	import { forgetKept } from '../live/kept';

	/** Signs out, and takes with it what this browser keeps of live documents. */
	let { quiet = false }: { quiet?: boolean } = $props();

	async function leave(event: SubmitEvent) {
		event.preventDefault();
		const form = event.currentTarget as HTMLFormElement;
		await forgetKept().catch(() => {});
		form.submit();
	}
</script>

<form method="post" action="/sign-out" onsubmit={leave}>
	<button class={quiet ? 'link text-ink-2' : 'button'}>Sign out</button>
</form>
