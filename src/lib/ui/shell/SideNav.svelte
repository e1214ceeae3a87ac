<script lang="ts">
	/** The pages of a subject, in a column beside them; on a phone in a line above. */
	let {
		title,
		links
	}: { title: string; links: readonly { href: string; word: string; current: boolean }[] } = $props();
</script>

<nav class="border-rule px-4 py-3 max-md:border-b md:overflow-auto md:border-r" aria-label={title}>
	<p class="mb-2 text-[15px] font-semibold">{title}</p>
	<ul class="max-md:flex max-md:flex-wrap max-md:gap-x-4">
		{#each links as { href, word, current } (href)}<li>
				<a
					{href}
					aria-current={current ? 'page' : undefined}
					class="block border-l-[3px] py-1 pl-2.5 max-md:border-0 max-md:pl-0 {current
						? 'border-plank font-semibold'
						: 'border-transparent text-ink-2 hover:text-ink'}">{word}</a
				>
			</li>{/each}
	</ul>
</nav>
