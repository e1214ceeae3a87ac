<script lang="ts">
	import { tellAway } from '../../src/lib/ui/kit/away';
	import type { Pickable } from '../../src/lib/ui/kit/person';
	import PersonPicker from '../../src/lib/ui/kit/PersonPicker.svelte';

	let { known, away }: { known: Pickable[]; away: Map<string, string> } = $props();
	tellAway(() => away);
</script>

<PersonPicker label="Who" {known} />
