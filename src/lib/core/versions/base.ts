/** A version on a document's line, as far as it matters for what somebody's file was made from. */
export interface OnLine {
	label: string;
	by: string;
	/** Id of the person it came from; null for the system. */
	byId: string | null;
	/** When it came, as an ISO date-time. */
	at: string;
}

/** What somebody's file was made from, as far as Cupboard knows, and what others stored since (rule L5). */
export interface Base {
	/** The newest version that the person is known to have had; null when none is. */
	label: string | null;
	/** Versions of others after it, oldest first; nothing is buried when there are none. */
	since: OnLine[];
}

/**
 * The base of a hand-in: the newest version that its sender is known to have had. Taking a lock does not make an old
 * file new (rule L5).
 * @param line the versions of the document, oldest first
 * @param had labels of the versions that the person downloaded, or opened from the drive
 */
export function baseOf(line: readonly OnLine[], had: ReadonlySet<string>, personId: string): Base {
	const at = line.findLastIndex((v) => v.byId === personId || had.has(v.label));
	return { label: line[at]?.label ?? null, since: line.slice(at + 1).filter((v) => v.byId !== personId) };
}

/** What is said to somebody before a file of theirs is stored over what others stored; null when there is no need. */
export function baseSentence({ label, since }: Base): string | null {
	if (!since.length) return null;
	const last = since.at(-1)!;
	const what = since.length === 1 ? last.label : `${since[0]!.label} to ${last.label}`;
	const by = [...new Set(since.map((v) => v.by))];
	const whom = by.length > 1 ? `${by.slice(0, -1).join(', ')} and ${by.at(-1)}` : by[0];
	return label
		? `Since ${label}, the last version that you are known to have had, ${whom} stored ${what}.`
		: `Cupboard does not know which version your file was made from. ${whom} stored ${what}.`;
}
