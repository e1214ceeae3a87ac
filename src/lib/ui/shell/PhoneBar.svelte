<script lang="ts">
	import { goto } from '$app/navigation';
	import CameraIcon from '@lucide/svelte/icons/camera';
	import EllipsisIcon from '@lucide/svelte/icons/ellipsis';
	import LibraryIcon from '@lucide/svelte/icons/library';
	import SearchIcon from '@lucide/svelte/icons/search';
	import SunIcon from '@lucide/svelte/icons/sun';
	import Menu from '../kit/Menu.svelte';
	import { WAYS, wayOf, type Waiting } from './ways';

	/** The ways in on a phone, along the bottom where a thumb reaches. */
	let { here, base, waiting }: { here: string; base: string; waiting: Waiting } = $props();
	const BAR = [
		{ word: 'Today', path: 'today', Icon: SunIcon },
		{ word: 'Shelves', path: 'shelves', Icon: LibraryIcon },
		{ word: 'Find', path: 'find', Icon: SearchIcon },
		{ word: 'Photograph', path: 'photograph', Icon: CameraIcon }
	];
	const place = 'relative flex flex-1 flex-col items-center gap-0.5 pt-1.5 pb-1 text-[11px]';
	const current = $derived(BAR.find((one) => one.path === here)?.path ?? wayOf(here)?.path);
	const more = $derived(WAYS.filter((way) => !BAR.some((one) => one.path === way.path)));
</script>

<nav class="flex h-(--phone-bar) shrink-0 border-t-2 border-ink bg-sheet md:hidden" aria-label="Project">
	{#each BAR as { word, path, Icon } (path)}
		<a
			href="{base}/{path}"
			class="{place} {current === path ? 'font-semibold text-act' : 'text-ink-2'}"
			aria-current={current === path ? 'page' : undefined}
			><Icon size={19} aria-hidden="true" />{word}{#if path === 'today' && waiting.forYou}<span
					class="absolute top-0.5 left-1/2 ml-2 rounded-full bg-lock-soft px-1 font-mono text-[10px] leading-[15px] font-bold text-lock"
					>{waiting.forYou}</span
				>{/if}</a
		>
	{/each}
	<Menu
		class="{place} cursor-pointer {more.some((way) => way.path === current)
			? 'font-semibold text-act'
			: 'text-ink-2'}"
		groups={[
			more.map((way) => ({
				word: way.word,
				act: () => goto(`${base}/${way.path}`)
			})),
			[
				{ word: 'Removed', act: () => goto(`${base}/removed`) },
				{ word: 'At hand', act: () => goto(`${base}/at-hand`) },
				{ word: 'Desk', act: () => goto(`${base}/desk`) }
			]
		]}>{#snippet face()}<EllipsisIcon size={19} aria-hidden="true" />More{/snippet}</Menu
	>
</nav>
