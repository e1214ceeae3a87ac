<script lang="ts">
	import { cupboard, type AnswerOf } from '../../client/cupboard';
	import Field from '../kit/Field.svelte';
	import Form from '../kit/Form.svelte';
	import { toast } from '../kit/toast';
	import { refreshAll } from '../platform/refresh';

	/** Colleagues of who got a release: who answers along with them, and how another is asked for. */
	let { view, secret }: { view: AnswerOf<'passView'>; secret: string } = $props();

	let asking = $state(false);
	let name = $state('');
	let email = $state('');
	let instead = $state(false);
	let words = $state('');
	const STATE = {
		asked: 'asked for, waits for an answer',
		in: 'has a link of their own',
		refused: 'was not let in'
	} as const;

	async function ask() {
		await cupboard.askForColleague({ secret, name, email, instead, words });
		toast.success(`Asked. ${view.release.issuedBy} lets ${name} in, or tells you why not.`);
		[asking, name, email, instead, words] = [false, '', '', false, ''];
		await refreshAll();
	}
</script>

<section aria-label="Colleagues" class="mt-6 border-t border-rule pt-3 print:hidden">
	<h2 class="mb-1 text-[15px]">Colleagues</h2>
	<p class="mb-2 text-ink-2">
		Do not pass your link on: what is said by it is said in your name. A colleague gets a link of their own.
	</p>
	{#if view.colleagues.length}<ul class="mb-2">
			{#each view.colleagues as one, i (i)}<li>
					<b class="font-semibold">{one.name}</b>
					<span class="text-ink-2"
						>{STATE[one.state]}{one.state === 'in' && one.instead ? ', and answers in your stead' : ''}</span
					>
				</li>{/each}
		</ul>{/if}
	{#if asking}<div class="max-w-[520px] border border-ink bg-sheet p-3">
			<Form act={ask} button="Ask for them" cancel={() => (asking = false)}>
				<div class="grid gap-3 sm:grid-cols-2">
					<Field label="Name" name="name" bind:value={name} maxlength={180} required />
					<Field label="Mail address" name="email" bind:value={email} type="email" required />
				</div>
				<label class="flex items-center gap-2"
					><input type="checkbox" class="accent-act" bind:checked={instead} />They answer in my stead, and are
					reminded instead of me</label
				>
				<Field label="What you say to them, if you like" name="words" lines={2} bind:value={words} />
			</Form>
		</div>{:else}<button class="button" onclick={() => (asking = true)}>Ask for a colleague…</button>{/if}
</section>
