import * as contract from '../../contract/holders';
import { Problem } from '../../core/acts/problem';
import { stateOf } from '../../core/releases/holders';
import { plural } from '../../core/words/sentences';
import { does } from '../platform/runner/act';
import { holdersOf, type HeldDocument } from './holders';

/** So many documents are named in one mail; the rest is counted. */
const MOST_NAMED = 40;

const holdsOld = (doc: HeldDocument, place: number) => {
	const held = doc.held[place];
	return held !== undefined && stateOf(held, doc.issuedSeq) === 'old';
};

export const tellHolders = does(contract.tellHolders, {
	async run({ tx, project: here, person: by, mail, tell }, input) {
		const { holders, documents } = await holdersOf(tx, here.id);
		let told = 0;
		let unknown = 0;
		for (const [place, one] of holders.entries()) {
			if (input.holder && one.key !== input.holder.toLowerCase()) continue;
			const old = documents.filter(
				(doc) => (!input.document || doc.document === input.document) && holdsOld(doc, place)
			);
			if (!old.length) continue;
			if (!one.email) {
				unknown++;
				continue;
			}
			await mail(
				{ name: one.name, address: one.email },
				`${here.code}: you hold ${plural(old.length, 'revision')} that ${old.length === 1 ? 'is' : 'are'} out of date`,
				{
					says: [
						`${by.name} tells you that newer revisions are issued of ${plural(old.length, 'document')} that you were sent or took. Please do not work from the old ones.`
					],
					facts: old
						.slice(0, MOST_NAMED)
						.map((doc) => [
							doc.number,
							`${doc.title}: you hold ${doc.held[place]!.label}, ${doc.issued} is current`
						]),
					after: [
						...(old.length > MOST_NAMED ? [`And ${old.length - MOST_NAMED} more.`] : []),
						`Answer ${by.name} if you need the newer ones and were not sent them.`
					]
				}
			);
			told++;
			tell({ kind: 'holder.told', details: { to: one.name, documents: old.length } });
		}
		if (!told && !unknown)
			throw new Problem('conflict', 'Nobody of these holds an old revision. Nobody was told.');
		return { told, unknown };
	}
});
