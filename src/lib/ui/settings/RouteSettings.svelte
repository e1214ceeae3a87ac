<script lang="ts">
	import { onMount, untrack } from 'svelte';
	import { checkRoute, MOST_ROUTES, oneStep, type RouteTemplate } from '../../core/releases';
	import { PURPOSE_LABEL, PURPOSES, type Purpose } from '../../core/revisions/revisions';
	import { cupboard, type AnswerOf } from '../../client/cupboard';
	import { attempt } from '../platform/api';
	import Select from '../kit/Select.svelte';
	import { approversAmong } from '../releases/approvers';
	import RouteEditor from '../releases/RouteEditor.svelte';
	import SettingsForm from './SettingsForm.svelte';

	/** The routes that releases are built with, each for a purpose or for any. */
	let { project, more }: { project: AnswerOf<'projectFrame'>['project']; more: AnswerOf<'settings'> } =
		$props();
	let routes = $state.raw<RouteTemplate[]>(untrack(() => more.routes));
	let own = $state(untrack(() => more.approveOwn));
	let byCode = $state(untrack(() => more.issueNeeds === 'code'));
	let draw = $state(untrack(() => more.answersDraw));
	let known = $state.raw<ReturnType<typeof approversAmong>>([]);
	onMount(() => {
		void attempt(async () => {
			known = approversAmong(await cupboard.people({ project: project.id }));
		});
	});
	const change = (at: number, to: Partial<RouteTemplate>) =>
		(routes = routes.map((one, i) => (i === at ? { ...one, ...to } : one)));
	const add = () =>
		(routes = [
			...routes,
			{
				name: `Route ${routes.length + 1}`,
				purpose: null,
				steps: oneStep('').map((step) => ({ ...step, of: [] }))
			}
		]);
	const wrong = $derived(
		routes.map((one) => (one.name.trim() ? checkRoute(one.steps) : 'A route needs a name.')).find(Boolean) ??
			''
	);
</script>

<SettingsForm
	project={project.id}
	title="Routes"
	button="Change the routes"
	change={{ routes: routes.map((one) => ({ ...one, name: one.name.trim() })) }}
	{wrong}
>
	<p class="text-ink-2">
		A route says who approves a release, step by step, before it goes out. A new release is proposed the route
		of its purpose, and can have one of its own. Releases that are built already keep theirs.
	</p>
	{#each routes as one, at (at)}
		<section class="border-t border-rule pt-3">
			<div class="mb-2 flex flex-wrap items-center gap-2">
				<input
					class="field !w-[220px] font-semibold"
					aria-label="Name of route {at + 1}"
					value={one.name}
					oninput={(e) => change(at, { name: e.currentTarget.value })}
					maxlength={80}
					required
				/>
				<Select
					label="Purpose of {one.name}"
					choices={[
						{ value: '', label: 'for any purpose' },
						...PURPOSES.map((purpose) => ({ value: purpose, label: PURPOSE_LABEL[purpose].toLowerCase() }))
					]}
					value={one.purpose ?? ''}
					choose={(to) => change(at, { purpose: (to || null) as Purpose | null })}
					class="!w-[180px]"
				/>
				<button
					type="button"
					class="link ml-auto text-[12px]"
					onclick={() => (routes = routes.filter((_, i) => i !== at))}>Delete route</button
				>
			</div>
			<RouteEditor
				label="Steps of {one.name}"
				bind:steps={() => one.steps, (steps) => change(at, { steps })}
				{known}
			/>
		</section>
	{:else}<p>No route is kept yet. Each release has one of its own.</p>{/each}
	{#if routes.length < MOST_ROUTES}<button type="button" class="button" onclick={add}>Add a route</button
		>{/if}
</SettingsForm>
<SettingsForm
	project={project.id}
	title="Issuing a release"
	button="Change what issuing asks for"
	change={{ issueNeeds: byCode ? 'code' : 'number' }}
>
	<label class="flex items-start gap-2"
		><input type="checkbox" class="mt-1 accent-act" bind:checked={byCode} /><span
			><b class="font-semibold">Issuing asks for a code of two-step sign-in</b><span
				class="block text-[12px] text-ink-2"
				>So that nobody issues at a computer that somebody else left open. Otherwise the number of the release
				is typed, as a second look.</span
			></span
		></label
	>
</SettingsForm>
<SettingsForm
	project={project.id}
	title="Answering a release"
	button="Change how it is answered"
	change={{ answersDraw: draw }}
>
	<label class="flex items-start gap-2"
		><input type="checkbox" class="mt-1 accent-act" bind:checked={draw} /><span
			><b class="font-semibold">Clients draw on the sheets</b><span class="block text-[12px] text-ink-2"
				>Clouds, arrows and words, kept with the verdict, and marks on the version for its department once it
				is signed. Otherwise they place remarks and send marked-up files.</span
			></span
		></label
	>
</SettingsForm>
<SettingsForm
	project={project.id}
	title="Approving what one made"
	button="Change who may approve"
	change={{ approveOwn: own }}
>
	<label class="flex items-start gap-2"
		><input type="checkbox" class="mt-1 accent-act" bind:checked={own} /><span
			><b class="font-semibold">Whoever made a release may approve it, too</b><span
				class="block text-[12px] text-ink-2"
				>Usually nobody decides on what they built, changed or asked for, so that two have seen what goes out.
				Only where too few work on a project for that; the trail says who did what all the same.</span
			></span
		></label
	>
</SettingsForm>
