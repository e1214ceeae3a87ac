<script lang="ts">
	import NumberingEditor from '$lib/ui/documents/NumberingEditor.svelte';
	import SchemeEditor from '$lib/ui/documents/SchemeEditor.svelte';
	import AccessSettings from '$lib/ui/settings/AccessSettings.svelte';
	import FileSettings from '$lib/ui/settings/FileSettings.svelte';
	import MailSettings from '$lib/ui/settings/MailSettings.svelte';
	import PurposeSettings from '$lib/ui/settings/PurposeSettings.svelte';
	import RegisterSettings from '$lib/ui/settings/RegisterSettings.svelte';
	import DistributionSettings from '$lib/ui/settings/DistributionSettings.svelte';
	import RouteSettings from '$lib/ui/settings/RouteSettings.svelte';
	import { SECTIONS } from '$lib/ui/settings/sections';
	import StampSettings from '$lib/ui/settings/StampSettings.svelte';
	import TimeSettings from '$lib/ui/settings/TimeSettings.svelte';
	import TitleBlockSettings from '$lib/ui/settings/TitleBlockSettings.svelte';
	import SideNav from '$lib/ui/shell/SideNav.svelte';

	/** How the project works, a part a page; each says what comes of a change before it is made. */
	let { data } = $props();
	const project = $derived(data.frame.project);
	const base = $derived(`/${project.code.toLowerCase()}/settings`);
	const section = $derived(data.section.id);
</script>

<svelte:head><title>{data.section.word} · Settings of {project.name}</title></svelte:head>
<div class="h-full overflow-auto md:grid md:grid-cols-[230px_1fr] md:overflow-hidden">
	<SideNav
		title="Settings"
		links={SECTIONS.map(({ id, word }) => ({ href: `${base}/${id}`, word, current: id === section }))}
	/>
	<div class="space-y-5 px-6 py-4 md:overflow-auto">
		<h1 class="text-[21px]">{data.section.word}</h1>
		{#if section === 'numbers'}
			<NumberingEditor project={project.id} code={project.code} rule={project.numbering} />
			<SchemeEditor project={project.id} scheme={project.revisions} />
			<PurposeSettings {project} more={data.more} />
		{:else if section === 'access'}<AccessSettings {project} />
		{:else if section === 'register'}<RegisterSettings {project} more={data.more} />
		{:else if section === 'releases'}<DistributionSettings {project} more={data.more} /><RouteSettings
				{project}
				more={data.more}
			/>
		{:else if section === 'time'}<TimeSettings {project} />
		{:else if section === 'files'}<FileSettings {project} />
		{:else if section === 'sheets'}<TitleBlockSettings {project} />
		{:else if section === 'stamps'}<StampSettings {project} more={data.more} />
		{:else}<MailSettings {project} more={data.more} />{/if}
	</div>
</div>
