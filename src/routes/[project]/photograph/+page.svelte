<script lang="ts">
	import Field from '$lib/ui/kit/Field.svelte';
	import Form from '$lib/ui/kit/Form.svelte';
	import Select from '$lib/ui/kit/Select.svelte';
	import { onDestroy, onMount } from 'svelte';
	import { tagsOf } from '$lib/core/files/settle';
	import { photographs } from '$lib/ui/adding/photographs.svelte';
	import { plural, sizeText } from '$lib/ui/platform/words';

	/** For people on site: photograph, name, send; on a bad line everything waits here until it is through. */
	let { data } = $props();
	const code = $derived(data.frame.project.code.toLowerCase());

	interface Taken {
		file: File;
		title: string;
	}
	let place = $state('');
	let tags = $state('');
	let taken = $state<Taken[]>([]);
	let fault = $state('');
	let online = $state(true);
	const places = $derived(data.places);
	// The folder asked for, or the one used last on this phone.
	$effect.pre(() => {
		if (place && places.some((p) => p.id === place)) return;
		const last = typeof localStorage === 'undefined' ? null : localStorage.getItem(`photographs-${code}`);
		place = [data.place, last].find((id) => places.some((p) => p.id === id)) ?? places[0]?.id ?? '';
	});

	let stop: (() => void) | undefined;
	onMount(() => {
		online = navigator.onLine;
		void photographs.open(data.frame.me.id).then((end) => (stop = end));
	});
	onDestroy(() => stop?.());

	/** Addresses of small pictures to look at, given back when they are not shown any more. */
	const shown = new Map<File, string>();
	function pictureOf(file: File): string {
		let address = shown.get(file);
		if (!address) shown.set(file, (address = URL.createObjectURL(file)));
		return address;
	}
	onDestroy(() => shown.forEach((address) => URL.revokeObjectURL(address)));

	const clock = new Intl.DateTimeFormat('en-GB', {
		day: 'numeric',
		month: 'short',
		hour: '2-digit',
		minute: '2-digit'
	});
	function take(event: Event) {
		const field = event.currentTarget as HTMLInputElement;
		fault = '';
		for (const file of field.files ?? []) {
			if (file.size === 0 || file.size > data.frame.project.maxFileBytes) {
				fault = `${file.name} is ${file.size ? 'larger than the project allows' : 'empty'}.`;
				continue;
			}
			pictureOf(file);
			taken.push({ file, title: `Photograph ${clock.format(file.lastModified).replace(',', '')}` });
		}
		field.value = '';
	}

	async function keep() {
		fault = '';
		const { id, code, keepPosition } = data.frame.project;
		try {
			await photographs.add(
				taken.map(({ file, title }) => ({
					project: { id, code, keepPosition },
					place,
					placeName: places.find((p) => p.id === place)!.way,
					title: title.trim(),
					tags: tagsOf(tags).join(', '),
					file
				}))
			);
			localStorage.setItem(`photographs-${data.frame.project.code.toLowerCase()}`, place);
			taken = [];
		} catch {
			fault = 'This browser has no room to keep them. Send fewer at a time; nothing was lost.';
		}
	}
</script>

<svelte:window ononline={() => (online = true)} onoffline={() => (online = false)} />
<svelte:head><title>Photograph · {data.frame.project.name}</title></svelte:head>
<div class="h-full overflow-auto px-4 py-3">
	<div class="mx-auto max-w-[640px] space-y-4">
		<h1 class="text-[21px]">Photograph</h1>
		<p class="text-[12.5px] text-ink-2">
			Pictures are sent as they are taken, with the day and time that the camera wrote into them{data.frame
				.project.keepPosition
				? ' and where they were taken'
				: '; where they were taken is taken out before they leave this phone'}. Without a line they are kept
			in this browser until they are sent, also when the page is closed; only clearing the browser’s data
			throws them away.
		</p>
		{#if !places.length}
			<p class="text-ink-2">There is no folder here in which you may add anything. A lead can let you in.</p>
		{:else}
			<div class="space-y-3">
				<div class="grid grid-cols-2 gap-2">
					<label class="button button-act min-h-[52px] cursor-pointer justify-center focus-within:outline-2"
						>Take a photograph<input
							type="file"
							accept="image/jpeg,image/png,image/webp"
							capture="environment"
							class="sr-only"
							onchange={take}
						/></label
					>
					<label class="button min-h-[52px] cursor-pointer justify-center focus-within:outline-2"
						>Choose several<input
							type="file"
							accept="image/jpeg,image/png,image/webp"
							multiple
							class="sr-only"
							onchange={take}
						/></label
					>
				</div>
				{#if fault}<p role="alert" class="text-fault">{fault}</p>{/if}
				{#if taken.length}<Form act={keep} onSite button="Add {plural(taken.length, 'photograph')}">
						<ul class="divide-y divide-rule-2 border-y border-rule bg-sheet">
							{#each taken as one, i (one.file)}
								<li class="flex items-center gap-3 p-2">
									<img src={pictureOf(one.file)} alt="" class="h-16 w-16 shrink-0 object-cover" />
									<label class="min-w-0 flex-1"
										><span class="label">Title</span><input
											class="field"
											bind:value={one.title}
											required
											maxlength="180"
										/></label
									>
									<button
										type="button"
										class="link min-h-[44px] px-1 text-[12px]"
										onclick={() => taken.splice(i, 1)}>Leave out</button
									>
								</li>
							{/each}
						</ul>
						<label class="block"
							><span class="label">Folder</span><Select
								choices={places.map((one) => ({ value: one.id, label: one.way }))}
								bind:value={place}
								class="min-h-[40px]"
							/></label
						>
						<Field label="Tags, with commas between them" name="tags" maxlength={400} bind:value={tags} />
					</Form>{/if}
			</div>
		{/if}
		{#if photographs.list.length}
			<section aria-label="On their way">
				<h2 class="mb-1 text-[15px]">
					{plural(photographs.list.length, 'photograph')} on the way
				</h2>
				{#if !online}<p class="mb-1 border-l-2 border-lock bg-lock-soft px-2 py-1">
						No line. They are kept here and sent when it is back.
					</p>{/if}
				<ul class="divide-y divide-rule-2 border-y border-rule-2">
					{#each photographs.list as one (one.kept.id)}
						<li class="flex items-center gap-3 py-1.5">
							<img src={pictureOf(one.kept.file)} alt="" class="h-10 w-10 shrink-0 object-cover" />
							<div class="min-w-0 flex-1">
								<p class="truncate">{one.kept.title}</p>
								<p class="truncate text-[12px] text-ink-2">
									{one.kept.placeName} · {sizeText(one.kept.file.size)}
								</p>
								{#if one.fault}<p role="alert" class="text-[12px] text-fault">{one.fault}</p>{/if}
							</div>
							{#if one.state === 'going'}<span class="text-[12px] text-wait">being sent</span>
							{:else if one.state === 'fault'}<button
									class="link min-h-[44px] px-1 text-[12px]"
									onclick={() => photographs.retry(one.kept.id)}>Try again</button
								>{:else}<span class="text-[12px] text-ink-2">waits</span>{/if}
							<button
								class="link min-h-[44px] px-1 text-[12px]"
								disabled={one.state === 'going'}
								onclick={() => photographs.leaveOut(one.kept.id)}>Leave out</button
							>
						</li>
					{/each}
				</ul>
			</section>
		{/if}
		{#if photographs.done.length}
			<section aria-label="Added">
				<h2 class="mb-1 text-[15px]">{plural(photographs.done.length, 'photograph')} added</h2>
				<ul>
					{#each photographs.done as one (one.id)}<li class="py-1">
							<a class="link" href="/{code}/document/{one.id}"
								><span class="mr-2 font-mono text-[12px]">{one.number}</span>{one.title}</a
							>
						</li>{/each}
				</ul>
			</section>
		{/if}
	</div>
</div>
