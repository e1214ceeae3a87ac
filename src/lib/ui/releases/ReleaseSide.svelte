<script lang="ts">
	import { cupboard, type AnswerOf } from '../../client/cupboard';
	import Tabs from '../kit/Tabs.svelte';
	import { whenText } from '../platform/words';
	import TrailPanel from '../trail/TrailPanel.svelte';
	import RouteSteps from './RouteSteps.svelte';

	/** What stands beside a release: its route, with what changed since it was decided on last and what proves it, and its trail. */
	let {
		view,
		code
	}: { view: AnswerOf<'releaseView'>; /** Of the project, as addresses have it. */ code: string } = $props();
	const about = $derived(view.release);
	const open = $derived(['building', 'in-review', 'approved'].includes(about.state));
	let beside = $state<'route' | 'trail'>('route');
</script>

<Tabs
	bind:value={beside}
	class="h-full"
	tabs={[
		{ value: 'route', word: 'Route', panel: routePanel, class: 'px-5 py-4' },
		{ value: 'trail', word: 'Trail', panel: trailPanel }
	]}
/>
{#snippet routePanel()}<RouteSteps release={about} route={view.route} recipients={view.recipients} />
	{#if view.last && open && (view.last.says === 'sent-back' || view.last.changes.length)}
		<section class="mt-5 border-t border-rule pt-3">
			<h2 class="mb-1 text-[15px]">Since the last time</h2>
			<p class="text-ink-2">
				{view.last.says === 'sent-back' ? 'Sent back' : 'Approved'} by {view.last.by}{view.last.standsFor
					? ` for ${view.last.standsFor}`
					: ''}
				{whenText(view.last.at)}{view.last.reason ? `: “${view.last.reason}”` : '.'}
			</p>
			{#if view.last.changes.length}<ul class="mt-1 list-disc pl-5 text-ink-2">
					{#each view.last.changes as change (change)}<li>{change}</li>{/each}
				</ul>
				<p class="mt-1 text-ink-2">
					{view.route.length === 1 ? 'It is asked again.' : 'Every step is asked again.'}
				</p>{:else}<p class="text-ink-2">Nothing changed since.</p>{/if}
		</section>
	{/if}
	{#if about.manifestHash}<dl class="mt-5 space-y-2 border-t border-rule pt-3 text-[12px] text-ink-2">
			{#each [['Manifest, signed at issue', about.manifestHash], ['Key that signed it', about.key], ['Certificate that signs cover notes', about.certificate]] as const as [what, hash] (what)}<div
				>
					<dt>{what}</dt>
					<dd class="font-mono break-all">{hash}</dd>
				</div>{/each}
		</dl>
		<p class="mt-2 text-[12px] text-ink-2">
			Tell key and certificate by another way to whoever proves a package or a cover note.
		</p>{/if}{/snippet}
{#snippet trailPanel()}<TrailPanel
		of={about.id}
		read={(release, page) => cupboard.releaseTrail({ release, ...page })}
		changed={view}
		{code}
	/>{/snippet}
