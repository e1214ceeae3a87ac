/** Who gets what by rule: the distribution list proposes who gets a release (rules T1, T9). */

import type { Purpose } from '../revisions/revisions';
import { EXPECTS, type Expects, type ProofAsked } from './recipients';

/** Somebody gets every document that fits. What a rule does not speak of (an empty list) fits anything. */
export interface DistributionRule {
	recipient: string;
	expects: Expects;
	asks: ProofAsked;
	purposes: readonly Purpose[];
	/** Codes, as numbers have them. */
	departments: readonly string[];
	zones: readonly string[];
	types: readonly string[];
}

/** Most rules of a project, and most codes that one names of a kind. */
export const MOST_RULES = 200;
export const MOST_CODES = 40;

/** A document, with what its number says. */
export interface Numbered {
	id: string;
	department: string;
	zone: string;
	type: string;
}

/** What somebody is proposed to get; `documents` null for all of them. */
export interface Proposal {
	recipient: string;
	expects: Expects;
	asks: ProofAsked;
	documents: string[] | null;
}

const fits = (named: readonly string[], code: string) => !named.length || named.includes(code);
const isAbout = ({ departments, zones, types }: DistributionRule) =>
	departments.length + zones.length + types.length > 0;

/**
 * Who gets a release by the rules of a project, in their order. Where several rules name somebody, they get what any of
 * them gives, are asked for the most that one of them asks, and prove who they are as the first of them says. A release
 * without documents goes to those whose rules do not speak of documents.
 */
export function proposed(
	rules: readonly DistributionRule[],
	purpose: Purpose,
	documents: readonly Numbered[]
): Proposal[] {
	const by = new Map<string, Proposal & { documents: string[] }>();
	for (const rule of rules) {
		if (rule.purposes.length && !rule.purposes.includes(purpose)) continue;
		const given = documents.filter(
			(one) =>
				fits(rule.departments, one.department) && fits(rule.zones, one.zone) && fits(rule.types, one.type)
		);
		if (documents.length ? !given.length : isAbout(rule)) continue;
		const before = by.get(rule.recipient);
		const ids = new Set([...(before?.documents ?? []), ...given.map((one) => one.id)]);
		by.set(rule.recipient, {
			recipient: rule.recipient,
			asks: before?.asks ?? rule.asks,
			// The list goes from the most that is asked to the least.
			expects: EXPECTS.find((one) => one === before?.expects || one === rule.expects)!,
			documents: documents.filter((one) => ids.has(one.id)).map((one) => one.id)
		});
	}
	return [...by.values()].map((one) =>
		one.documents.length === documents.length ? { ...one, documents: null } : one
	);
}

const named = (word: string, codes: readonly string[]) =>
	codes.length ? ` ${word}${codes.length === 1 ? '' : 's'} ${codes.join(', ')}` : '';

/** What a rule is about, as people say it: “documents of department ST in zone LS”. */
export const ruleWords = ({ departments, zones, types }: DistributionRule): string =>
	departments.length + zones.length + types.length === 0
		? 'every document'
		: `documents${named('of department', departments)}${named('in zone', zones)}${named('of type', types)}`;
