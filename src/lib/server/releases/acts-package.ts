import * as contract from '../../contract/packages';
import { splitExtension } from '../../core/files/names';
import { partOf } from '../../core/register/numbers';
import { gets, outgoingName, releaseNumber, suitabilityOf } from '../../core/releases';
import { dayOf } from '../../core/time/days';
import { does } from '../platform/runner/act';
import { signersOf } from '../platform/certificate';
import { alongBy, drawnList } from './answered';
import { releaseItems } from './checks';
import { releasePackage } from './package';
import { recipientsOf, signedVerdicts, storedNote } from './recipients';
import { namesOf } from './route';

export const takeReleasePackage = does(contract.takeReleasePackage, {
	async run({ tx, services, project: here, release: about, now, tell }) {
		const rows = await releaseItems(tx, about.id);
		const signed = await signedVerdicts(tx, about.id);
		const recipients = [];
		const got = await recipientsOf(tx, about.id);
		const along = await alongBy(
			tx,
			got.flatMap((one) => one.passId ?? [])
		);
		for (const one of got)
			recipients.push({
				name: one.name,
				company: one.company,
				proof: {
					manifest: one.manifest!,
					signature: one.manifestSignature!,
					note: await storedNote(tx, one.coverNoteHash!)
				},
				receivedAt: one.pass?.receivedAt?.toISOString() ?? null,
				verdicts: rows.flatMap((row) => {
					const { placed, drawn, files } = along(one.passId, row.documentId);
					const said = gets(one, row.documentId) ? signed.get(`${one.passId} ${row.documentId}`) : undefined;
					return said?.code
						? [
								{
									number: row.number,
									code: said.code,
									remark: said.remark,
									by: said.signedName!,
									at: said.signedAt!.toISOString(),
									placed: placed.map(({ page, x, y, text }) => ({ page, x, y, text })),
									drawn: drawn.length ? drawnList(drawn) : null,
									files: files.map(({ fileName, side, hash, size }) => ({
										...{ name: fileName, side: side!, hash, size }
									}))
								}
							]
						: [];
				})
			});
		const names = await namesOf(
			tx,
			rows.flatMap((row) => row.outcomeBy ?? [])
		);
		const part = (number: string, key: string) => partOf(here.settings.numbering, number, key) ?? '';
		const files = releasePackage({
			number: about.number,
			project: { code: here.code, name: here.name },
			title: about.title,
			suitability: about.manifest!.suitability ?? suitabilityOf(here.settings, about.purpose),
			whole: {
				manifest: about.manifest!,
				signature: about.manifestSignature!,
				note: await storedNote(tx, about.coverNoteHash!)
			},
			documents: rows.map((row) => ({
				number: row.number,
				department: part(row.number, 'department'),
				type: part(row.number, 'type'),
				file: row.outgoingName!,
				hash: row.sentHash!,
				size: row.sentSize!,
				original:
					row.sentHash === row.pinnedHash
						? null
						: {
								file: outgoingName(row.number, row.chosenLabel, row.title, splitExtension(row.fileName)[1]),
								hash: row.pinnedHash!,
								size: row.size
							}
			})),
			recipients,
			consolidated: rows.flatMap((row) =>
				row.outcome && row.outcomeBy
					? [
							{
								number: row.number,
								code: row.outcome,
								reason: row.outcomeReason!,
								by: names.get(row.outcomeBy) ?? '',
								at: row.outcomeAt!.toISOString()
							}
						]
					: []
			),
			day: dayOf(now, here.timeZone),
			by: await signersOf(services.config)
		});
		tell({
			kind: 'release.packaged',
			releaseId: about.id,
			details: { number: about.number, documents: rows.length }
		});
		return { name: `${here.code} release ${releaseNumber(about.number)} package.zip`, files };
	}
});
