<script lang="ts">
	import Select from '../kit/Select.svelte';
	import { cupboard } from '../../client/cupboard';
	import { attempt } from '../platform/api';
	import Dialog from '../kit/Dialog.svelte';

	/** Chooses a person to look as. Everything then shows as they would see it, and nothing can be changed. */
	let { project, to }: { project: string; to: string } = $props();
	let open = $state(false);
	let people = $state<{ id: string; name: string; outside: boolean }[]>([]);
	let chosen = $state('');

	async function show() {
		open = true;
		const answer = await attempt(() => cupboard.mayTryAs({ project }));
		people = answer?.people ?? [];
	}
	async function begin(event: SubmitEvent) {
		event.preventDefault();
		const answer = await attempt(() => cupboard.tryAs({ project, person: chosen }));
		if (!answer) return;
		document.cookie = `cupboard-try=${answer.project}.${answer.person}; path=/; samesite=lax`;
		// Everything on screen belongs to oneself until now, so the page begins anew.
		location.assign(to);
	}
</script>

<button class="button" onclick={show}>Try as…</button>
<Dialog bind:open title="Try as somebody else">
	<form onsubmit={begin} class="space-y-3">
		<p class="text-ink-2">
			You see shelves, folders and finds exactly as the person would. Nothing can be changed meanwhile, and
			the trail notes that you looked.
		</p>
		<label class="block"
			><span class="label">Person</span><Select
				choices={[
					...people.map((p) => ({ value: p.id, label: `${p.name}${p.outside ? ' (outside)' : ''}` }))
				]}
				bind:value={chosen}
				placeholder="choose a person"
				required
			/></label
		>
		<div class="flex justify-end gap-2">
			<button type="button" class="button" onclick={() => (open = false)}>Cancel</button><button
				class="button button-act">Look as them</button
			>
		</div>
	</form>
</Dialog>
