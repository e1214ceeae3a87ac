import { eq } from 'drizzle-orm';
import { arrival, content, type Scan } from '../platform/db/schema';
import { checkArrival, findScanner, type Scanner } from '../formats/scan';
import type { Services } from '../platform/services';
import { writeEvents } from '../trail/write';

let scanner: Promise<Scanner | null> | null = null;

/** Checks one file that came in, and lets it wait for sorting or marks it as unsafe. Can be done twice. */
export async function checkOne(services: Services, arrivalId: string, now = new Date()): Promise<void> {
	const { db } = services.database;
	const [row] = await db
		.select({ arrival, mediaType: content.mediaType })
		.from(arrival)
		.innerJoin(content, eq(content.hash, arrival.hash))
		.where(eq(arrival.id, arrivalId));
	if (!row || row.arrival.state !== 'checking') return;
	scanner ??= findScanner(services.config.demo);
	const scan: Scan = await checkArrival(
		await services.store.localPath(row.arrival.hash),
		row.mediaType,
		await scanner,
		() => services.inspector.archiveFault(row.arrival.hash)
	);
	await db.transaction(async (tx) => {
		await tx
			.update(arrival)
			.set({ scan, state: scan.fault ? 'unsafe' : 'waiting' })
			.where(eq(arrival.id, arrivalId));
		await writeEvents(tx, row.arrival.projectId, now, { id: null, name: 'Cupboard' }, [
			{
				kind: scan.fault ? 'hatch.unsafe' : 'hatch.checked',
				placeId: row.arrival.placeId,
				details: { file: row.arrival.fileName, sender: row.arrival.sender, ...scan }
			}
		]);
	});
}
