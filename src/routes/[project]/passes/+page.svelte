<script lang="ts">
	import { onMount, type ComponentProps } from 'svelte';
	import { SvelteSet } from 'svelte/reactivity';
	import { toast } from 'svelte-sonner';
	import { releaseNumber } from '$lib/core/releases';
	import { cupboard } from '$lib/client/cupboard';
	import ConfirmDialog from '$lib/ui/kit/ConfirmDialog.svelte';
	import SharingTabs from '$lib/ui/access/SharingTabs.svelte';
	import PassAddress from '$lib/ui/passes/PassAddress.svelte';
	import PassChange from '$lib/ui/passes/PassChange.svelte';
	import { onTouched } from '$lib/ui/platform/live.svelte';
	import { refresh } from '$lib/ui/platform/refresh';
	import { dayText, plural, whenText } from '$lib/ui/platform/words';

	let { data } = $props();
	const base = $derived(`/${data.frame.project.code.toLowerCase()}`);
	const selection = new SvelteSet<string>();
	let all = $state(false);
	let asking = $state<{ title: string; text: string; button: string; act: () => Promise<unknown> } | null>(
		null
	);
	let looking = $state<ComponentProps<typeof PassAddress>['pass']>(null);
	let changing = $state<ComponentProps<typeof PassChange>['pass']>(null);
	const again = () => refresh('cupboard:passes');
	onMount(() => onTouched(['passes', 'arrivals', 'places', 'access'], again));
	const passes = $derived(data.passes.filter((p) => all || p.state === 'open'));
	const hatches = $derived(data.hatches.filter((h) => all || h.state === 'open'));
	type Pass = (typeof data.passes)[number];

	const WHO = { anyone: 'anyone holding it', accounts: 'people with an account', named: 'named people' };
	const LOOK: Record<string, string> = {
		open: 'bg-done-soft text-done',
		withdrawn: 'bg-rule-2',
		ended: 'bg-rule-2',
		'used up': 'bg-rule-2'
	};
	const nameOf = (p: Pass) =>
		p.release
			? `Release ${releaseNumber(p.release)}`
			: `${p.number ? `${p.number} ` : ''}${p.placeName ?? ''}`;
	const wayTo = (p: Pass) =>
		p.release
			? `${base}/releases/${p.release}`
			: p.placeKind === 'document'
				? `${base}/document/${p.place}`
				: `${base}/place/${p.place}`;

	function withdraw(rows: Pass[]) {
		const ids = rows.map((r) => r.id);
		asking = {
			title: `Withdraw ${plural(ids.length, 'pass', 'passes')}?`,
			text: `${rows
				.slice(0, 3)
				.map((p) => `${nameOf(p)} for ${p.holder}`)
				.join(
					'; '
				)}${rows.length > 3 ? `; and ${rows.length - 3} more` : ''}. They stop working at once, in open tabs too. Copies already downloaded stay where they are.`,
			button: 'Withdraw',
			act: async () => {
				await cupboard.withdrawPasses({ project: data.frame.project.id, passes: ids });
				selection.clear();
				toast(`${plural(ids.length, 'pass', 'passes')} withdrawn.`);
			}
		};
	}
	function closeHatch(id: string, title: string) {
		asking = {
			title: `Close the hatch “${title}”?`,
			text: 'Nobody can put files in any more. What came in stays under Arrivals.',
			button: 'Close it',
			act: () => cupboard.closeHatches({ project: data.frame.project.id, hatches: [id] })
		};
	}
	const cell = 'px-2 py-1.5';
</script>

<svelte:head><title>Passes and hatches · {data.frame.project.name}</title></svelte:head>
<div class="flex h-full flex-col">
	<SharingTabs {base} />
	<div class="min-h-0 flex-1 space-y-6 overflow-auto px-5 py-3">
		<section>
			<div class="mb-1.5 flex flex-wrap items-center gap-3">
				<h1 class="text-[18px]">Passes</h1>
				<label class="flex items-center gap-1.5 text-ink-2"
					><input type="checkbox" class="accent-act" bind:checked={all} />also those that ended</label
				>
				{#if data.only}<a class="link text-ink-2" href="{base}/passes">all of the project</a>{/if}
				{#if selection.size}<button
						class="button"
						onclick={() => withdraw(data.passes.filter((p) => selection.has(p.id)))}
						>Withdraw {plural(selection.size, 'pass', 'passes')}…</button
					>{/if}
			</div>
			<div class="overflow-x-auto">
				<table class="lines-on-phone w-full bg-sheet sm:min-w-[860px]">
					<thead class="text-[12px]"
						><tr class="border-y border-ink bg-film"
							><th class="{cell} w-8"><span class="sr-only">Tick</span></th><th class={cell}>Leads to</th><th
								class={cell}>For</th
							><th class={cell}>May be used by</th><th class={cell}>To</th><th class={cell}>Uses</th><th
								class={cell}>Last use</th
							><th class={cell}>Made by</th><th class={cell}>Until</th><th class={cell}>State</th><th
								class={cell}><span class="sr-only">Do</span></th
							></tr
						></thead
					>
					<tbody>
						{#each passes as p (p.id)}
							<tr class="border-b border-rule-2">
								<td class={cell}
									>{#if p.state === 'open'}<input
											type="checkbox"
											class="accent-act"
											aria-label="Tick the pass for {p.holder}"
											checked={selection.has(p.id)}
											onchange={() => selection.delete(p.id) || selection.add(p.id)}
										/>{/if}</td
								>
								<td class="{cell} max-w-[240px]"
									><a class="link block truncate font-semibold" href={wayTo(p)}>{nameOf(p)}</a
									>{#if p.label}<span class="text-[11.5px] text-ink-2">exactly {p.label}</span>{/if}</td
								>
								<td class={cell}>{p.holder}</td>
								<td class="{cell} text-ink-2"
									>{WHO[p.audience]}{p.audience === 'named' ? ` (${p.emails.length})` : ''}{p.locked
										? ', with a password'
										: ''}</td
								>
								<td class="{cell} text-ink-2"
									>{p.mayDownload ? 'view and download' : 'view'}{p.stamped ? ', stamped' : ''}{p.withMarks
										? ', with marks'
										: ''}{p.embeddable ? ', web pages' : ''}</td
								>
								<td class="{cell} font-mono text-[12px] whitespace-nowrap"
									>{p.uses}{p.maxUses ? ` of ${p.maxUses}` : ''}</td
								>
								<td class="{cell} whitespace-nowrap text-ink-2"
									>{p.lastUsedAt ? whenText(p.lastUsedAt) : 'never'}</td
								>
								<td class="{cell} text-ink-2">{p.by?.split(' ')[0] ?? ''}, {dayText(p.createdAt)}</td>
								<td class="{cell} whitespace-nowrap text-ink-2">{dayText(p.endsAt)}</td>
								<td class={cell}><span class="tag {LOOK[p.state]}">{p.state}</span></td>
								<td class="{cell} text-right"
									>{#if p.state === 'open' || p.state === 'used up'}<span class="flex justify-end gap-2"
											>{#if p.mine && p.mayChange}<button
													class="link"
													onclick={() => (looking = { ...p, name: nameOf(p) })}>Address</button
												>{/if}{#if p.mayChange}<button
													class="link"
													onclick={() => (changing = { ...p, name: nameOf(p) })}>Change</button
												>{/if}<button class="link" onclick={() => withdraw([p])}>Withdraw</button></span
										>{/if}</td
								>
							</tr>
						{:else}<tr
								><td colspan="11" class="p-4 text-ink-2"
									>No {all ? '' : 'open '}passes. They are made at a folder or document, or when a release is
									issued.</td
								></tr
							>{/each}
					</tbody>
				</table>
			</div>
		</section>
		<section>
			<h2 class="mb-1.5 text-[18px]">Hatches</h2>
			<div class="overflow-x-auto">
				<table class="lines-on-phone w-full bg-sheet sm:min-w-[720px]">
					<thead class="text-[12px]"
						><tr class="border-y border-ink bg-film"
							><th class={cell}>Asked for</th><th class={cell}>Into</th><th class={cell}>Lets in</th><th
								class={cell}>Came in</th
							><th class={cell}>Last use</th><th class={cell}>Made by</th><th class={cell}>Until</th><th
								class={cell}>State</th
							><th class={cell}><span class="sr-only">Do</span></th></tr
						></thead
					>
					<tbody>
						{#each hatches as h (h.id)}
							<tr class="border-b border-rule-2">
								<td class="{cell} font-semibold">{h.title}</td>
								<td class={cell}><a class="link" href="{base}/place/{h.place}">{h.placeName}</a></td>
								<td class="{cell} text-ink-2">{h.endings.length ? h.endings.join(', ') : 'every kind'}</td>
								<td class="{cell} font-mono text-[12px]">{h.files} of {h.maxFiles}</td>
								<td class="{cell} text-ink-2">{h.lastUsedAt ? whenText(h.lastUsedAt) : 'never'}</td>
								<td class="{cell} text-ink-2">{h.by?.split(' ')[0]}, {dayText(h.createdAt)}</td>
								<td class="{cell} text-ink-2">{dayText(h.endsAt)}</td>
								<td class={cell}><span class="tag {LOOK[h.state]}">{h.state}</span></td>
								<td class="{cell} text-right"
									>{#if h.state === 'open'}<button class="link" onclick={() => closeHatch(h.id, h.title)}
											>Close</button
										>{/if}</td
								>
							</tr>
						{:else}<tr
								><td colspan="9" class="p-4 text-ink-2"
									>No {all ? '' : 'open '}hatches. They are made at a folder.</td
								></tr
							>{/each}
					</tbody>
				</table>
			</div>
		</section>
	</div>
</div>
{#if asking}<ConfirmDialog bind:asking done={again} />{/if}
<PassAddress bind:pass={looking} projectId={data.frame.project.id} done={again} />
<PassChange
	bind:pass={changing}
	projectId={data.frame.project.id}
	timeZone={data.frame.project.timeZone}
	done={again}
/>
