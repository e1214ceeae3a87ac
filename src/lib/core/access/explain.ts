import {
	capped,
	limited,
	names,
	reaching,
	runsAsController,
	weigh,
	weighAll,
	type Found,
	type Step,
	type Subject
} from './decide';
import { levelLabel, type Level } from './levels';
import type { Grant } from './model';

/** What a person is told about an entry beside the entry itself. */
export interface Origin {
	/** Name of the place it stands at, or `here`. */
	where: string;
	/** What the subject is called: "Structures", "the leads of Marine works", or the person's own name. */
	subject: string;
}

/** What stands at the place that lowers levels there. */
export interface Standing {
	frozen: { by: string; at: number; reason: string } | null;
	archived: boolean;
	/** Who else has the document in hand, or null. */
	inHandOf: string | null;
	/** Name of the nearest closed place on the way, or null. */
	closed: string | null;
}

/** The answer to "why": the level, and the reasoning in sentences (A9). */
export interface Explanation {
	level: Level | null;
	/** Before freezes, archives and limits. */
	held: Level | null;
	/** What decided, then what else was considered. */
	reasons: string[];
	/** What lowers it; says so when nothing does. */
	caps: string[];
	/** What would change it. */
	changes: string[];
	/** Id of the entry that decided, when it can be ended. */
	grantId: string | null;
}

/**
 * Explains a person's level at a place: which entries were considered, which decided, what capped it (A9).
 *
 * @param way the places from the one asked about upward, with their entries
 * @param origin how to call an entry's place and subject
 * @param day writes a moment as a day
 */
export function explain(
	name: string,
	who: Subject,
	way: readonly Step<Grant>[],
	standing: Standing,
	now: number,
	origin: (grant: Grant) => Origin,
	day: (at: number) => string
): Explanation {
	const { found, counting, verdict, heldDown } = weighAll(who, way, now);
	const given = (g: Grant) => {
		const { where } = origin(g);
		const by = g.by ? ` by ${g.by} on ${day(g.at)}` : '';
		const until = g.endsAt === null ? '' : `, until ${day(g.endsAt)}`;
		const how = g.underId
			? 'brought in'
			: g.by
				? 'given'
				: `which comes with the ${way.at(-1)?.desk ? 'desk' : 'shelf'},`;
		return `${how} ${where}${by}${until}`;
	};
	const called = (g: Grant) => (g.subjectKind === 'person' ? name : origin(g).subject);
	const reasons: string[] = [];
	const everywhere = runsAsController(who, way);
	if (everywhere) {
		reasons.push(
			`Manage, because ${name} is a document controller of the project; they have Manage everywhere, apart from desks.`
		);
	} else if (verdict.decisive) {
		const { entry } = verdict.decisive;
		if (verdict.why === 'personal-bar')
			reasons.push(`${name} is barred ${given(entry).replace('given ', '')}.`);
		else if (verdict.why === 'bar')
			reasons.push(
				`Barred through ${called(entry)}, ${given(entry)}. Only a grant to ${name} at the same place or nearer would stand against it.`
			);
		else {
			const through = entry.subjectKind === 'person' ? '' : ` through ${called(entry)}`;
			reasons.push(`${levelLabel(entry.level!)}${through}, ${given(entry)}.`);
			if (verdict.why === 'exactly') reasons.push('It was given exactly, so it decides alone.');
			if (heldDown)
				reasons.push(
					`It stands above ${standing.closed ?? 'the closed folder'}, but closing a place never gives more than there was, so it goes on holding.`
				);
		}
	} else reasons.push(`Nothing that was given reaches ${name} here.`);
	const weighed = heldDown ? found : counting;
	if (!everywhere) reasons.push(...others(weighed, verdict.decisive, called, given, verdict.why));
	const ignored = way.flatMap((step) =>
		step.entries.filter((g) => names(g, who) && !weighed.some((f) => f.entry === g))
	);
	for (const g of everywhere ? [] : ignored)
		reasons.push(ignoredSentence(g, found, standing, now, called, given, day));

	const decided = everywhere ? 'manage' : verdict.level;
	const level = capped(limited(who, decided), {
		frozen: standing.frozen !== null,
		archived: standing.archived,
		inHand: standing.inHandOf !== null
	});
	return {
		level,
		held: decided,
		reasons,
		caps: capSentences(who, decided, level, standing, day),
		changes: whatWouldChange(name, who, weighed, way, verdict.decisive, decided, called),
		grantId: verdict.decisive?.entry.id ?? null
	};
}

function others(
	found: readonly Found<Grant>[],
	decisive: Found<Grant> | null,
	called: (g: Grant) => string,
	given: (g: Grant) => string,
	why: string
): string[] {
	return found
		.filter((f) => f !== decisive)
		.map(({ entry }) => {
			const what = entry.level === null ? 'is barred' : `also has ${levelLabel(entry.level)}`;
			const outcome =
				entry.level === null
					? ', but the nearer personal grant stands against it.'
					: why === 'highest'
						? '. The higher one holds.'
						: '. It does not count here.';
			return `${called(entry)} ${what}, ${given(entry)}${outcome}`;
		});
}

function ignoredSentence(
	g: Grant,
	found: readonly Found<Grant>[],
	standing: Standing,
	now: number,
	called: (g: Grant) => string,
	given: (g: Grant) => string,
	day: (at: number) => string
): string {
	const what = g.level === null ? 'A bar' : levelLabel(g.level);
	const lead = `${what} for ${called(g)}, ${given(g)},`;
	if (g.endsAt !== null && g.endsAt <= now) return `${lead} ended on ${day(g.endsAt)}.`;
	if (
		found.some(
			(f) => f.entry !== g && f.entry.subjectKind === g.subjectKind && f.entry.subjectId === g.subjectId
		)
	)
		return `${lead} is replaced by the nearer one.`;
	return `${lead} does not reach past ${standing.closed ?? 'the closed folder'}, which is closed.`;
}

function capSentences(
	who: Subject,
	decided: Level | null,
	level: Level | null,
	standing: Standing,
	day: (at: number) => string
): string[] {
	const caps: string[] = [];
	const from = decided ? levelLabel(decided) : '';
	if (who.blocked)
		caps.push('Kept out of the project for the time being; what was given comes back with it.');
	else if (decided !== null && limited(who, decided) !== decided)
		caps.push(
			who.outside
				? who.ceiling === null
					? 'The project gives nothing to people outside.'
					: `Capped from ${from}: the project gives people outside ${levelLabel(who.ceiling)} at most.`
				: `Capped from ${from}: the project asks for two-step sign-in before somebody may Manage.`
		);
	if (standing.frozen)
		caps.push(
			level !== decided && limited(who, decided) !== 'manage'
				? `Capped from ${from} by the freeze of ${standing.frozen.by} on ${day(standing.frozen.at)}: ${standing.frozen.reason}.`
				: `Frozen by ${standing.frozen.by} on ${day(standing.frozen.at)}: ${standing.frozen.reason}. It does not lower this level.`
		);
	if (standing.inHandOf !== null) caps.push(`Capped at Remark while ${standing.inHandOf} has it in hand.`);
	if (standing.archived) caps.push('Capped at Download: the document is archived.');
	if (!caps.length) caps.push('Nothing caps it: no freeze, not archived.');
	return caps;
}

function whatWouldChange(
	name: string,
	who: Subject,
	found: readonly Found<Grant>[],
	way: readonly Step<Grant>[],
	decisive: Found<Grant> | null,
	decided: Level | null,
	called: (g: Grant) => string
): string[] {
	if (runsAsController(who, way)) return [`Only if ${name} were no longer a document controller.`];
	if (way.at(-1)?.desk) return ['Nothing: a desk is one person’s own, and nobody else is let in.'];
	if (!decisive) return [`A grant to ${name}, or to a department or group of theirs, would change it.`];
	const rest = weigh(
		reaching(
			found.filter((f) => f !== decisive),
			way
		)
	);
	const keeps = rest.level
		? `${name} ${decided === null ? 'would have' : 'keeps'} ${levelLabel(rest.level)} through ${rest.decisive!.entry.subjectKind === 'person' ? 'the personal grant' : called(rest.decisive!.entry)}`
		: `${name} ${decided === null ? 'still has' : 'has'} no access here`;
	const what = decisive.entry.level === null ? 'bar' : 'grant';
	const changes = [`If that ${what} ends, ${keeps}.`];
	if (decisive.entry.subjectKind !== 'person' && decisive.entry.level !== null)
		changes.push(`If ${name} leaves ${called(decisive.entry)}, the same happens for ${name} alone.`);
	return changes;
}
