<script lang="ts">
	import { onMount } from 'svelte';
	import { page } from '$app/state';
	import type { Known } from '../../core/access/invite';
	import { LEVELS, type Level } from '../../core/access/levels';
	import { cupboard } from '../../client/cupboard';
	import { sentenceOf } from '../platform/api';
	import Dialog from '../kit/Dialog.svelte';
	import InviteBox from './InviteBox.svelte';

	/** Lets people in at several documents and folders at once, with the same lines. */
	let {
		open = $bindable(false),
		places,
		what,
		documents,
		done
	}: {
		open: boolean;
		places: string[];
		/** The places in words. */
		what: string;
		/** There are documents among them, into which nothing is put. */
		documents: boolean;
		done: () => unknown;
	} = $props();
	let here = $state.raw<{ known: Known[]; outsideLevel: Level | null } | null>(null);
	let fault = $state('');

	onMount(() => {
		cupboard
			.access({ place: places[0]! })
			.then((answer) => (here = answer))
			.catch((error: unknown) => (fault = sentenceOf(error)));
	});
	async function finished() {
		open = false;
		await done();
	}
</script>

<Dialog bind:open title="Share {what}">
	{#if fault}<p role="alert" class="text-fault">{fault}</p>
	{:else if here}<InviteBox
			{places}
			known={here.known}
			outsideLevel={here.outsideLevel}
			ownDomains={page.data.frame.project.ownDomains}
			levels={documents ? LEVELS.filter((l) => l !== 'drop') : LEVELS}
			done={finished}
		/>{/if}
</Dialog>
