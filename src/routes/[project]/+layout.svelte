<script lang="ts">
	import { afterNavigate, beforeNavigate, goto } from '$app/navigation';
	import { page } from '$app/state';
	import { tellAway } from '$lib/ui/kit/away';
	import Menu from '$lib/ui/kit/Menu.svelte';
	import { onMount } from 'svelte';
	import { arrive, CHANGES, line, onTouched, setOut, watchProject } from '$lib/ui/platform/live.svelte';
	import BellIcon from '@lucide/svelte/icons/bell';
	import { cupboard } from '$lib/client/cupboard';
	import Mark from '$lib/ui/shell/Mark.svelte';
	import SendingPanel from '$lib/ui/adding/SendingPanel.svelte';
	import { paced } from '$lib/ui/platform/paced';
	import Shortcuts from '$lib/ui/kit/Shortcuts.svelte';
	import PhoneBar from '$lib/ui/shell/PhoneBar.svelte';
	import WayLine from '$lib/ui/shell/WayLine.svelte';
	import { WAYS, wayOf } from '$lib/ui/shell/ways';
	import { dayText, initials } from '$lib/ui/platform/words';

	let { data, children } = $props();
	const away = $derived(
		new Map(
			data.frame.away.map((one) => [one.person, `away until ${dayText(one.until)}, ${one.standIn} decides`])
		)
	);
	tellAway(() => away);
	const base = $derived(`/${data.frame.project.code.toLowerCase()}`);
	const onDesk = $derived(page.data.place?.onDesk || page.data.view?.onDesk);
	/** The page of the project that is open, by its path; what lies on one’s desk belongs to the desk. */
	const here = $derived(onDesk ? 'desk' : (page.url.pathname.split('/')[2] ?? ''));
	const way = $derived(wayOf(here));
	let find = $state('');
	let field: HTMLInputElement | undefined = $state();

	let unread = $derived(data.unread);
	let waiting = $derived(data.waiting);
	onMount(() => watchProject(data.frame.project.code, data.asked));
	beforeNavigate(setOut);
	afterNavigate(arrive);
	/** Where much happens, the counts follow every two seconds: they are asked for by every open page. */
	const recount = paced(2_000, () => {
		const project = data.frame.project.id;
		Promise.all([cupboard.notices({ project, limit: '1' }), cupboard.waiting({ project })])
			.then(([told, counted]) => {
				unread = told.unread;
				waiting = counted;
			})
			.catch(() => {});
	});
	onMount(() => {
		const end = onTouched(CHANGES, () => recount(undefined));
		return () => {
			end();
			recount.stop();
		};
	});

	function endTrying() {
		document.cookie = 'cupboard-try=; path=/; max-age=0; samesite=lax';
		location.reload();
	}
	function search(event: SubmitEvent) {
		event.preventDefault();
		if (find.trim()) void goto(`${base}/find?q=${encodeURIComponent(find.trim())}`);
	}
</script>

<div class="flex h-screen min-h-0 flex-col">
	<a class="sr-only focus:not-sr-only focus:bg-sheet focus:p-2" href="#main">To the content</a>
	<header class="flex h-11 shrink-0 items-center gap-x-2 bg-frame px-4 text-on-frame md:h-12 md:gap-x-4">
		<a class="flex items-center gap-2" href="{base}/shelves"
			><Mark /><b class="text-[16px] [font-stretch:110%]">Cupboard</b></a
		>
		<Menu
			label={data.frame.project.name}
			class="max-w-[32vw] truncate rounded-sm border border-[#5d7b72] px-2 py-1 text-[13px] font-medium md:max-w-[46vw]"
			align="start"
			groups={[
				data.projects.map((project) => ({
					code: project.code,
					word: project.name,
					act: () => goto(`/${project.code.toLowerCase()}/shelves`, { invalidateAll: true })
				})),
				[
					{ word: 'All projects', act: () => goto('/projects') },
					{ word: 'How Cupboard works', act: () => goto(`${base}/help`) },
					data.frame.me.controller && { word: 'Settings', act: () => goto(`${base}/settings`) },
					data.frame.me.controller && { word: 'Outbox', act: () => goto(`${base}/outbox`) }
				]
			]}
		/>
		<nav class="hidden gap-1 self-end md:flex" aria-label="Project">
			{#each WAYS as one (one.path)}
				{@const current = one === way}
				{@const count = one.count ? waiting[one.count] : 0}
				<a
					href="{base}/{one.path}"
					aria-current={current ? 'page' : undefined}
					class="flex items-baseline gap-1.5 rounded-t-[4px] px-2.5 py-2.5 text-[13.5px] font-medium whitespace-nowrap {current
						? 'bg-film font-semibold text-ink'
						: 'text-[#d5e0db] hover:text-on-frame'}"
					>{one.word}{#if count}<span
							class="font-mono text-[11px] {current ? 'text-ink-2' : 'text-[#e6cfa6]'}"
							aria-label="{count} waiting">{count}</span
						>{/if}</a
				>
			{/each}
		</nav>
		<form class="ml-auto hidden md:block" role="search" onsubmit={search}>
			<div class="relative">
				<input
					bind:this={field}
					bind:value={find}
					aria-label="Find by number, title or words inside"
					placeholder="Number, title, words…"
					class="h-[30px] w-[184px] rounded-sm border border-[#5d7b72] bg-[#0e2721] px-2.5 text-on-frame placeholder:text-[#a9bdb5] min-[1400px]:w-[250px]"
				/>
				<kbd
					class="absolute top-1.5 right-2 rounded-sm border border-[#5d7b72] px-1 text-[10px] text-[#a9bdb5]"
					>/</kbd
				>
			</div>
		</form>
		<a
			href="{base}/notices"
			class="relative ml-auto grid h-7 w-7 shrink-0 place-items-center text-on-frame md:ml-0"
			title="Notices"
			aria-label={unread ? `Notices, ${unread} not read` : 'Notices'}
			><BellIcon size={17} aria-hidden="true" />{#if unread}<span
					class="absolute -top-1 left-3.5 rounded-full bg-[#e6cfa6] px-1 font-mono text-[10px] leading-[15px] font-bold text-[#17231f]"
					aria-hidden="true">{unread > 99 ? '99+' : unread}</span
				>{/if}</a
		>
		<a
			href="/me"
			class="grid h-7 w-7 shrink-0 place-items-center rounded-sm bg-[#e6cfa6] text-[11px] font-bold text-[#17231f]"
			title="{data.frame.me.name}: your own page"
			aria-label="{data.frame.me.name}: your own page">{initials(data.frame.me.name)}</a
		>
	</header>
	{#if data.trying}<p
			role="status"
			class="flex flex-wrap items-center gap-3 border-b-4 border-dashed border-new bg-new-soft px-4 py-1.5 text-new"
		>
			<b>You are looking as {data.frame.me.name}.</b> Everything shows as they would see it; nothing can be
			changed.
			<button class="button ml-auto" onclick={endTrying}>End</button>
		</p>{/if}
	{#if !line.up}<p role="status" class="bg-lock-soft px-4 py-1 text-lock">
			The line to the server is down. What you see may be old; it comes back by itself.
		</p>{/if}
	<!-- What is for screen readers only lies outside the flow, and must not make the page wider than a phone. -->
	{#if way?.inside.length}<WayLine {way} {here} {base} {waiting} />{/if}
	<main id="main" class="relative min-h-0 flex-1 overflow-x-clip">{@render children()}</main>
	<SendingPanel />
	<PhoneBar {here} {base} {waiting} />
</div>
<Shortcuts find={() => field?.focus()} help="{base}/help" />
