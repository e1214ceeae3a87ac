<script lang="ts">
	import { levelChoices } from '$lib/ui/access/level-choices';
	import Field from '$lib/ui/kit/Field.svelte';
	import Form from '$lib/ui/kit/Form.svelte';
	import Select from '$lib/ui/kit/Select.svelte';
	import { refreshAll } from '$lib/ui/platform/refresh';
	import { toast } from '$lib/ui/kit/toast';
	import { LEVELS, type Level } from '$lib/core/access/levels';
	import { PURPOSE_LABEL, PURPOSES, type Purpose } from '$lib/core/revisions/revisions';
	import { readHolidays, writeHolidays } from '$lib/core/time/holidays';
	import { WEEKDAYS, type Weekday } from '$lib/core/time/working-days';
	import { CallError } from '$lib/client/call';
	import { cupboard } from '$lib/client/cupboard';
	import { projectDay } from '$lib/ui/platform/project-day';
	import NumberingEditor from '$lib/ui/documents/NumberingEditor.svelte';
	import SchemeEditor from '$lib/ui/documents/SchemeEditor.svelte';

	let { data } = $props();
	// svelte-ignore state_referenced_locally
	let outside = $state<Level | 'nothing'>(data.frame.project.outsideLevel ?? 'nothing');
	// svelte-ignore state_referenced_locally
	let twoStep = $state(data.frame.project.manageNeedsTwoStep);
	// svelte-ignore state_referenced_locally
	let keepPosition = $state(data.frame.project.keepPosition);
	// svelte-ignore state_referenced_locally
	let stamps = $state(data.frame.project.stamps.join('\n'));
	// svelte-ignore state_referenced_locally
	let domains = $state(data.frame.project.ownDomains.join(', '));
	// svelte-ignore state_referenced_locally
	let releasePurposes = $state<Purpose[]>([...data.frame.project.releasePurposes]);
	// svelte-ignore state_referenced_locally
	let block = $state(
		Object.fromEntries(
			Object.entries(data.frame.project.titleBlock).map(([side, share]) => [side, Math.round(share * 100)])
		) as Record<'left' | 'top' | 'right' | 'bottom', number>
	);
	// svelte-ignore state_referenced_locally
	let weekend = $state<Weekday[]>([...data.frame.project.workCalendar.weekend]);
	// svelte-ignore state_referenced_locally
	let holidays = $state(writeHolidays(data.frame.project.workCalendar.holidays));
	// svelte-ignore state_referenced_locally
	let retentionDays = $state(data.frame.project.retentionDays);
	// svelte-ignore state_referenced_locally
	let lockLimitDays = $state(data.frame.project.lockLimitDays);
	/** Bytes of a GB as it is written here. */
	const GB = 1024 ** 3;
	// svelte-ignore state_referenced_locally
	let largest = $state(Math.round((data.frame.project.maxFileBytes / GB) * 100) / 100);
	const read = $derived(readHolidays(holidays, projectDay()));

	async function submit() {
		if (read.faults.length)
			throw new CallError(
				'invalid',
				`Holidays, line ${read.faults[0]}: write a day and what it is called, such as “25 Dec 2026, Christmas Day”.`,
				{ field: 'holidays' }
			);
		await cupboard.changeSettings({
			project: data.frame.project.id,
			outsideLevel: outside === 'nothing' ? null : outside,
			manageNeedsTwoStep: twoStep,
			keepPosition,
			retentionDays,
			lockLimitDays,
			// What was not touched stays to the byte.
			...(Math.abs(largest * GB - data.frame.project.maxFileBytes) < GB / 100
				? {}
				: { maxFileBytes: Math.round(largest * GB) }),
			ownDomains: domains.split(/[\s,;]+/).filter(Boolean),
			releasePurposes,
			titleBlock: {
				left: block.left / 100,
				top: block.top / 100,
				right: block.right / 100,
				bottom: block.bottom / 100
			},
			workCalendar: { weekend, holidays: read.holidays },
			stamps: stamps
				.split('\n')
				.map((line) => line.trim())
				.filter(Boolean)
		});
		toast('The settings are changed.');
		await refreshAll();
	}
</script>

<svelte:head><title>Settings · {data.frame.project.name}</title></svelte:head>
<div class="h-full overflow-auto px-5 py-3">
	<h1 class="mb-3 text-[21px]">Settings of {data.frame.project.name}</h1>
	<div class="max-w-[560px] border border-ink bg-sheet p-4">
		<Form act={submit} button="Change settings" onPage>
			<label class="block"
				><span class="font-semibold">People outside may go up to</span>
				<span class="block text-[12px] text-ink-2"
					>What they have been given beyond it is capped at once; passes follow it too.</span
				>
				<Select
					choices={[{ value: 'nothing', label: 'nothing at all' }, ...levelChoices(LEVELS)]}
					bind:value={outside}
					class="mt-1 max-w-[240px]"
				/></label
			>
			<label class="flex items-start gap-2"
				><input type="checkbox" class="mt-1 accent-act" bind:checked={twoStep} /><span
					><b class="font-semibold">Manage needs two-step sign-in</b><span
						class="block text-[12px] text-ink-2"
						>Whoever has not set it up on their own page goes up to Organise, and controllers do not control,
						until they have.</span
					></span
				></label
			>
			<label class="flex items-start gap-2"
				><input type="checkbox" class="mt-1 accent-act" bind:checked={keepPosition} /><span
					><b class="font-semibold">Photographs keep where they were taken</b><span
						class="block text-[12px] text-ink-2"
						>Otherwise the position is taken out of JPEG files before they leave the phone or computer; the
						picture stays as it was.</span
					></span
				></label
			>
			<label class="block"
				><span class="font-semibold">Mail domains of your own organisation</span>
				<span class="block text-[12px] text-ink-2"
					>Who is invited from one of these is a colleague; everybody else comes from outside.</span
				>
				<input class="field mt-1 max-w-[400px]" bind:value={domains} placeholder="vennholm.example" /></label
			>
			<fieldset>
				<legend class="font-semibold">How long things last, and how large they are</legend>
				<div class="mt-1 grid gap-3 sm:grid-cols-3">
					<Field
						label="Days a lock lasts"
						name="lockLimitDays"
						bind:value={lockLimitDays}
						type="number"
						min={1}
						max={90}
						hint="without an end of its own; then it is stale"
					/>
					<Field
						label="Days to restore"
						name="retentionDays"
						bind:value={retentionDays}
						type="number"
						min={1}
						max={3650}
						hint="for which what is removed can come back"
					/>
					<Field
						label="Largest file, in GB"
						name="maxFileBytes"
						bind:value={largest}
						type="number"
						min={0.01}
						max={200}
						step="any"
						hint="what is larger is refused before it is sent"
					/>
				</div>
			</fieldset>
			<fieldset>
				<legend class="font-semibold">Purposes that need a release</legend>
				<p class="text-[12px] text-ink-2">
					For these nobody issues a revision alone; it goes through a release, checked and approved by a
					second person.
				</p>
				<div class="mt-1 flex flex-wrap gap-x-4 gap-y-1">
					{#each PURPOSES as purpose (purpose)}<label class="flex items-center gap-1.5"
							><input
								type="checkbox"
								class="accent-act"
								value={purpose}
								bind:group={releasePurposes}
							/>{PURPOSE_LABEL[purpose]}</label
						>{/each}
				</div>
			</fieldset>
			<fieldset>
				<legend class="font-semibold">Days on which nobody works</legend>
				<p class="text-[12px] text-ink-2">
					Days by which something is due are counted without them, and no lock is proposed to end on one.
				</p>
				<div class="mt-1 flex flex-wrap gap-x-4 gap-y-1">
					{#each WEEKDAYS as weekday (weekday)}<label class="flex items-center gap-1.5"
							><input
								type="checkbox"
								class="accent-act"
								value={weekday}
								bind:group={weekend}
							/>{weekday}</label
						>{/each}
				</div>
				<div class="mt-2 max-w-[400px]">
					<Field
						label="Holidays, one a line: the day and what it is called"
						name="holidays"
						bind:value={holidays}
						placeholder="25 Dec 2026, Christmas Day"
						lines={5}
					/>
				</div>
			</fieldset>
			<fieldset>
				<legend class="font-semibold">Place of the title block on PDF sheets</legend>
				<p class="text-[12px] text-ink-2">
					In percent of the sheet from its upper left corner. Number and revision are read there before a
					release goes out.
				</p>
				<div class="mt-1 flex flex-wrap gap-3">
					{#each ['left', 'top', 'right', 'bottom'] as const as side (side)}<Field
							label={side}
							name={side}
							bind:value={block[side]}
							type="number"
							min={0}
							max={100}
							mono
						/>{/each}
				</div>
			</fieldset>
			<label class="block"
				><span class="font-semibold">Stamps for marking up sheets</span>
				<span class="block text-[12px] text-ink-2">One a line; day and name are added when one is set.</span>
				<textarea class="field mt-1 max-w-[320px]" rows="5" bind:value={stamps}></textarea></label
			>
		</Form>
	</div>
	<div class="mt-5">
		<NumberingEditor
			project={data.frame.project.id}
			code={data.frame.project.code}
			rule={data.frame.project.numbering}
		/>
	</div>
	<div class="mt-5">
		<SchemeEditor project={data.frame.project.id} scheme={data.frame.project.revisions} />
	</div>
</div>
