<script lang="ts">
	import LockTag from '$lib/ui/locks/LockTag.svelte';
	import Revision from '$lib/ui/documents/Revision.svelte';
	import { agoText, firstName, plural } from '$lib/ui/platform/words';

	let { data } = $props();
	const code = $derived(data.frame.project.code.toLowerCase());
	const rows = $derived(data.found?.rows ?? []);
	const summary = $derived(
		!data.found
			? 'Type at least two characters of a number, a title, or what is written in a document.'
			: data.found.more
				? `${rows.length} of more that fit, the best first; type more to narrow it`
				: plural(rows.length, 'document')
	);
</script>

<svelte:head><title>Find {data.q} · {data.frame.project.name}</title></svelte:head>
<div class="h-full overflow-auto px-5 py-3">
	<div class="mb-3 flex flex-wrap items-center gap-3">
		<h1 class="text-[21px]">Find</h1>
		<form class="flex min-w-0 flex-1 gap-2 sm:flex-none" role="search">
			<!-- Whoever comes here without words means to type some. -->
			<!-- svelte-ignore a11y_autofocus -->
			<input
				class="field min-w-0 flex-1 sm:w-[240px] sm:flex-none"
				autofocus={!data.q}
				type="search"
				name="q"
				aria-label="Number, title or words inside"
				value={data.q}
				minlength="2"
			/><button class="button">Find</button>
		</form>
		<p class="text-ink-2">
			{summary}
		</p>
	</div>
	{#if data.found?.close}<p class="mb-3 border-l-2 border-wait bg-wait-soft px-3 py-1.5">
			Nothing has “{data.q}” as typed. These come closest.
		</p>{/if}
	<table class="w-full bg-sheet">
		<tbody>
			{#each rows as row (row.id)}
				<tr class="h-8 border-b border-rule-2">
					<td class="hidden pl-3 font-mono text-[12.5px] whitespace-nowrap sm:table-cell">{row.number}</td>
					<td class="pl-3"
						><a class="font-semibold hover:text-act" href="/{code}/document/{row.id}">{row.title}</a><span
							class="block font-mono text-[11px] text-ink-2 sm:hidden">{row.number}</span
						>{#if data.found?.passages[row.id]}<span class="block py-0.5 text-[12px] text-ink-2"
								>{data.found.passages[row.id]}</span
							>{/if}</td
					>
					<td class="px-3"><Revision label={row.label} issued={row.issued} /></td>
					<td class="hidden px-3 sm:table-cell"
						>{#if row.lock}<LockTag lock={row.lock} />{/if}</td
					>
					<td class="hidden px-3 whitespace-nowrap text-ink-2 sm:table-cell"
						>{firstName(row.changedBy)} · {agoText(row.changedAt)}</td
					>
					<td class="px-3 text-right"
						><a class="link text-[12px]" href="/{code}/place/{row.folder}?document={row.id}">Folder</a></td
					>
				</tr>
			{/each}
		</tbody>
	</table>
	{#if data.found && !rows.length}<p class="p-8 text-center text-ink-2">
			No document that you may look at has “{data.q}” in its number, its title, its tags or its text.
		</p>{/if}
</div>
