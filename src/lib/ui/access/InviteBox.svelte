<script lang="ts">
	import { levelChoices } from './level-choices';
	import Field from '../kit/Field.svelte';
	import Form from '../kit/Form.svelte';
	import PersonPicker from '../kit/PersonPicker.svelte';
	import Select from '../kit/Select.svelte';
	import { toast } from '../kit/toast';
	import { readInvites, type InviteLine, type Known } from '../../core/access/invite';
	import { isColleague } from '../../core/people/colleagues';
	import { LEVELS, levelLabel, rank, type Level } from '../../core/access/levels';
	import { cupboard } from '../../client/cupboard';
	import { CallError } from '../../client/call';
	import { dayText, plural } from '../platform/words';
	import { projectDay } from '../platform/project-day';

	/** Lets many in at once: one a line, typed or pasted, each with its own level; what is wrong stands at its line. */
	let {
		places,
		known,
		outsideLevel,
		ownDomains,
		levels = LEVELS,
		done
	}: {
		/** Where: one place, or several with the same lines. */
		places: string[];
		known: Known[];
		outsideLevel: Level | null;
		/** Mail domains of colleagues; everybody else comes from outside. */
		ownDomains: string[];
		levels?: readonly Level[];
		done: () => Promise<void>;
	} = $props();

	let text = $state('');
	let note = $state('');
	let preset = $state<Level>('view');
	let faultLine = $state(0);
	const EXAMPLE = 'Building services, View\nname@company.example, Download, 31 Dec';
	const today = projectDay();
	const lines = $derived(readInvites(text, known, preset, today).map(checked));
	const faults = $derived(lines.filter((l) => l.fault));
	const people = $derived(lines.reduce((n, l) => n + (l.known?.people ?? (l.fresh ? 1 : 0)), 0));
	const fresh = $derived(
		lines.filter((l) => l.fresh && !l.fault && !isColleague(l.fresh.email, ownDomains)).length
	);

	/** What can be told before asking: how far people outside may go. */
	function checked(line: InviteLine): InviteLine {
		if (line.level === 'drop' && !levels.includes('drop'))
			return { ...line, fault: 'Files are put into a folder, not into a document.' };
		const outside = line.fresh ? !isColleague(line.fresh.email, ownDomains) : line.known?.outside;
		if (line.fault || !outside || line.level === 'barred') return line;
		if (outsideLevel === null) return { ...line, fault: 'This project gives nothing to people outside.' };
		if (rank(line.level) > rank(outsideLevel))
			return { ...line, fault: `People outside get ${levelLabel(outsideLevel)} at most in this project.` };
		return line;
	}

	/** Puts a pick into the list, as if it had been typed there; somebody outside gets no more than they may. */
	function add(one: Known | { email: string }) {
		const fresh = !('kind' in one);
		const outside = fresh ? !isColleague(one.email, ownDomains) : one.outside;
		const level = outside && outsideLevel && rank(preset) > rank(outsideLevel) ? outsideLevel : preset;
		const named = fresh ? one.email : one.name;
		const line = `${named.includes(',') ? `"${named}"` : named}, ${levelLabel(level)}`;
		text = text.trim() ? `${text.trimEnd()}\n${line}` : line;
	}

	/** At how many of the places they are in already. */
	let reachedPlaces = $state(0);
	async function letIn() {
		faultLine = reachedPlaces = 0;
		const named = lines.map((l) => ({
			subject: l.known ? { kind: l.known.kind, id: l.known.id } : l.fresh!,
			level: l.level,
			until: l.until
		}));
		const all = { lines: named.length, reached: 0, fresh: 0 };
		for (const place of places) {
			const answer = await cupboard.letIn({ place, note, lines: named });
			reachedPlaces++;
			all.reached = Math.max(all.reached, answer.reached);
			all.fresh += answer.fresh;
		}
		text = note = '';
		reachedPlaces = 0;
		toast.success(
			`${plural(all.lines, 'line')} done${places.length > 1 ? ` at ${plural(places.length, 'place')}` : ''}; ${plural(all.reached, 'person', 'people')} new here${all.fresh ? `, ${all.fresh} with a new account` : ''}. They have been told.`
		);
	}
	function refused(error: unknown) {
		if (error instanceof CallError && typeof error.facts.line === 'number')
			faultLine = lines[error.facts.line - 1]?.line ?? 0;
	}
</script>

<Form
	act={letIn}
	{done}
	{refused}
	button="Let in and tell them"
	disabled={!lines.length || faults.length > 0}
	more={asRead}
>
	<h2 class="text-[15px]">Let more people in</h2>
	<div class="flex items-end gap-2">
		<div class="min-w-0 flex-1">
			<PersonPicker label="Person, department, group or mail address" {known} newcomers pick={add} />
		</div>
		<label class="w-[108px]"
			><span class="label">Level</span><Select choices={levelChoices(levels)} bind:value={preset} /></label
		>
	</div>
	<p id="invite-hint" class="text-[12px] text-ink-2">
		Or write or paste a list, one a line: a name or mail address, then the level, and a last day if you like.
		Lines without a level get the one chosen here.
	</p>
	<label class="block">
		<span class="sr-only">Whom to let in</span>
		<textarea
			class="field min-h-[104px] font-mono text-[12.5px] leading-[20px]"
			aria-describedby="invite-hint"
			aria-invalid={faults.length > 0}
			placeholder={EXAMPLE}
			bind:value={text}
			spellcheck="false"></textarea>
	</label>
	{#if lines.length}
		<ul class="max-h-[150px] space-y-0.5 overflow-auto text-[12px]" aria-label="As read">
			{#each lines as l (l.line)}
				<li class="flex gap-2 {l.fault || l.line === faultLine ? 'text-fault' : ''}">
					<span class="w-4 shrink-0 text-right font-mono text-ink-2">{l.line}</span>
					{#if l.fault}<span>{l.fault}</span>
					{:else}<span class="min-w-0 truncate"
							><b class="font-semibold">{l.known?.name ?? l.fresh!.name}</b>
							{l.fresh
								? `new ${isColleague(l.fresh.email, ownDomains) ? 'colleague' : 'from outside'}, ${l.fresh.email}`
								: l.known!.people > 1
									? plural(l.known!.people, 'person', 'people')
									: ''}</span
						><span class="ml-auto shrink-0 font-semibold"
							>{levelLabel(l.level)}{l.until ? `, until ${dayText(l.until)}` : ''}</span
						>{/if}
				</li>
			{/each}
		</ul>
	{/if}
	<Field label="A note to them" name="note" bind:value={note} maxlength={500} />
	{#if reachedPlaces}<p class="text-ink-2">
			They were let in at {reachedPlaces} of the {places.length} places.
		</p>{/if}
</Form>

{#snippet asRead()}<p
		class="mr-auto self-center text-[12px] {faults.length ? 'text-fault' : 'text-ink-2'}"
		role="status"
	>
		{#if faults.length}{plural(faults.length, 'line')} cannot be read
		{:else if lines.length}{plural(lines.length, 'line')}: {plural(people, 'person', 'people')}{fresh
				? `, ${fresh} new outside`
				: ''}{/if}
	</p>{/snippet}
