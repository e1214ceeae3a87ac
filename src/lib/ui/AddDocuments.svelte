<script lang="ts">
	import { refresh } from './refresh';
	import { onMount, untrack } from 'svelte';
	import { call, sentenceOf } from './api';
	import { queue, type Sending } from './sending.svelte';
	import Dialog from './Dialog.svelte';
	import { gatherChosen, type Gathered } from './files';
	import { plural, sizeText } from './words';

	/** Adds files to a folder: numbers and titles are proposed and settled before anything lands; each file goes its own way. */
	let {
		first,
		place,
		project,
		close
	}: {
		first: Gathered[];
		place: { id: string; name: string };
		project: { id: string; code: string; maxFileBytes: number };
		close: () => void;
	} = $props();

	interface Line {
		key: number;
		file: File;
		folders: string[];
		number: string;
		title: string;
		hint: string;
		state: 'ready' | 'sending' | 'added' | 'fault';
		fault: string;
		/** The file on its way, or arrived; kept when only number or title have to be mended. */
		sending: Sending | null;
	}
	/** Files added at the same time; how many are sent at once the queue decides. */
	const AT_ONCE = 6;

	let open = $state(true);
	let lines = $state<Line[]>([]);
	let busy = $state(false);
	let fault = $state('');
	let keys = 0;
	const waiting = $derived(lines.filter((l) => l.state === 'ready' || l.state === 'fault'));
	const added = $derived(lines.filter((l) => l.state === 'added').length);
	const total = $derived(lines.reduce((n, l) => n + l.file.size, 0));
	const sent = $derived(
		lines.reduce((n, l) => n + (l.state === 'added' ? l.file.size : (l.sending?.sent ?? 0)), 0)
	);

	onMount(() => void take(untrack(() => first)));
	$effect(() => {
		if (!open) {
			// What is on its way goes on; the page may be left meanwhile.
			close();
		}
	});

	async function take(gathered: Gathered[]) {
		fault = '';
		const fresh = gathered.map(({ file, folders }): Line => {
			const wrong =
				file.size === 0
					? 'The file is empty.'
					: file.size > project.maxFileBytes
						? `Larger than the project allows (${sizeText(project.maxFileBytes)}).`
						: '';
			return {
				key: ++keys,
				file,
				folders,
				number: '',
				title: '',
				hint: '',
				state: wrong ? 'fault' : 'ready',
				fault: wrong,
				sending: null
			};
		});
		for (let i = 0; i < fresh.length; i += 100) {
			const some = fresh.slice(i, i + 100);
			try {
				const query = encodeURIComponent(JSON.stringify(some.map((l) => l.file.name)));
				const { proposals } = await call<{
					proposals: { number: string; title: string; from: string; clash: boolean }[];
				}>('GET', `/places/${place.id}/proposals?files=${query}`);
				proposals.forEach((p, k) =>
					Object.assign(some[k]!, {
						number: p.number,
						title: p.title,
						hint: p.clash ? 'number is in use' : p.from === 'name' ? 'from the name' : 'next free'
					})
				);
			} catch (error) {
				fault = sentenceOf(error);
			}
		}
		lines = [...lines, ...fresh];
	}

	/** Ids of folders made on the way, so that a whole tree lands with its structure. */
	const made = new Map<string, Promise<string>>();
	function folderFor(folders: string[]): Promise<string> {
		if (!folders.length) return Promise.resolve(place.id);
		const way = folders.join('/');
		const known = made.get(way);
		if (known) return known;
		const making = folderFor(folders.slice(0, -1)).then(async (parent) => {
			const name = folders.at(-1)!;
			const tree = await call<{ tree: { id: string; parentId: string | null; name: string }[] }>(
				'GET',
				`/places/${parent}`
			);
			const there = tree.tree.find(
				(f) => f.parentId === parent && f.name.toLowerCase() === name.toLowerCase()
			);
			return there?.id ?? (await call<{ id: string }>('POST', `/places/${parent}/folders`, { name })).id;
		});
		made.set(way, making);
		making.catch(() => made.delete(way));
		return making;
	}

	async function add(line: Line) {
		line.state = 'sending';
		line.fault = '';
		try {
			if (!line.sending || line.sending.state === 'fault') line.sending = queue.send(project.code, line.file);
			const upload = await line.sending.done;
			const { documents } = await call<{ documents: { number: string; label: string }[] }>(
				'GET',
				`/projects/${project.id}/same-bytes?upload=${upload}`
			);
			const twin = documents[0];
			if (twin && !line.hint.startsWith('same bytes')) {
				line.hint = `same bytes as ${twin.number} ${twin.label}`;
				line.fault = `These bytes are here already as ${twin.number} ${twin.label}. Add again to keep both, or leave it out.`;
				line.state = 'fault';
				return;
			}
			await call('POST', `/places/${await folderFor(line.folders)}/documents`, {
				upload,
				number: line.number,
				title: line.title
			});
			line.state = 'added';
		} catch (error) {
			line.fault = sentenceOf(error);
			line.state = 'fault';
		}
	}

	async function addAll(event: SubmitEvent) {
		event.preventDefault();
		busy = true;
		const queue = lines.filter(
			(l) =>
				(l.state === 'ready' || l.state === 'fault') && l.file.size > 0 && l.file.size <= project.maxFileBytes
		);
		const worker = async () => {
			for (let line = queue.shift(); line; line = queue.shift()) await add(line);
		};
		await Promise.all(Array.from({ length: AT_ONCE }, worker));
		busy = false;
		await refresh('cupboard:folder');
		if (lines.every((l) => l.state === 'added')) open = false;
	}
	function choose(event: Event) {
		const field = event.currentTarget as HTMLInputElement;
		if (field.files) void take(gatherChosen(field.files));
		field.value = '';
	}
</script>

<Dialog bind:open title="Add documents to {place.name}" wide>
	<form onsubmit={addAll} class="space-y-3">
		<div class="flex flex-wrap items-center gap-2">
			<label class="button cursor-pointer focus-within:outline-2"
				>Choose files<input type="file" multiple class="sr-only" onchange={choose} /></label
			>
			<label class="button cursor-pointer focus-within:outline-2"
				>Choose a folder<input type="file" webkitdirectory class="sr-only" onchange={choose} /></label
			>
			<p class="text-ink-2">
				{lines.length
					? `${plural(lines.length, 'file')}, ${sizeText(total)}`
					: 'or drop files and whole folders anywhere on the list. Up to ' +
						sizeText(project.maxFileBytes) +
						' each.'}
			</p>
		</div>
		{#if fault}<p role="alert" class="text-fault">{fault}</p>{/if}
		{#if lines.length}
			<div class="max-h-[52vh] overflow-auto border border-rule">
				<table class="w-full">
					<thead class="sticky top-0 z-10 bg-film text-[12px]"
						><tr
							><th class="py-1 pl-2">File</th><th>Number</th><th>Title</th><th class="w-[200px]">State</th><th
								><span class="sr-only">Leave out</span></th
							></tr
						></thead
					>
					<tbody>
						{#each lines as line, i (line.key)}
							<tr class="border-t border-rule-2 align-top">
								<td class="max-w-[240px] py-1.5 pl-2"
									><span class="block truncate" title={[...line.folders, line.file.name].join('/')}
										>{line.folders.length ? `${line.folders.join(' / ')} / ` : ''}{line.file.name}</span
									><span class="text-[11.5px] text-ink-2">{sizeText(line.file.size)}</span></td
								>
								<td class="py-1 pr-2"
									><input
										class="field w-[190px] font-mono text-[12px]"
										aria-label="Number of {line.file.name}"
										bind:value={line.number}
										disabled={line.state === 'added' || busy}
										required
									/><span class="text-[11px] text-ink-2">{line.hint}</span></td
								>
								<td class="py-1 pr-2"
									><input
										class="field min-w-[180px]"
										aria-label="Title of {line.file.name}"
										bind:value={line.title}
										disabled={line.state === 'added' || busy}
										required
										maxlength="180"
									/></td
								>
								<td class="py-1.5">
									{#if line.state === 'sending'}<progress
											class="w-full"
											max={line.file.size}
											value={line.sending?.sent ?? 0}
											aria-label="Sent of {line.file.name}"
										></progress>{:else if line.state === 'added'}<span class="text-done">✓ added</span
										>{:else if line.fault}<span role="alert" class="text-[12px] text-fault">{line.fault}</span
										>{:else}<span class="text-ink-2">ready</span>{/if}
								</td>
								<td class="py-1.5 pr-2 text-right"
									>{#if line.state === 'ready' || line.state === 'fault'}<button
											type="button"
											class="link text-[12px] whitespace-nowrap"
											disabled={busy}
											onclick={() => lines.splice(i, 1)}>Leave out</button
										>{/if}</td
								>
							</tr>
						{/each}
					</tbody>
				</table>
			</div>
		{/if}
		<div class="flex items-center justify-end gap-2">
			<p class="mr-auto text-ink-2" role="status">
				{busy ? `${sizeText(sent)} of ${sizeText(total)}` : added ? `${added} of ${lines.length} added` : ''}
			</p>
			<button type="button" class="button" onclick={() => (open = false)}
				>{busy ? 'Go on in the background' : added ? 'Close' : 'Cancel'}</button
			>
			<button class="button button-act" disabled={busy || !waiting.length}
				>Add {waiting.length ? plural(waiting.length, 'document') : 'documents'}</button
			>
		</div>
	</form>
</Dialog>
