import * as z from 'zod/mini';
import { plural } from '../words/sentences';
import { doc, event } from './event';

export const liveBegun = event('live.begun', {
	details: z.strictObject({ number: z.string(), label: z.string() }),
	touches: ['documents'],
	says: (d) => `began to work on ${doc(d)} live`
});

export const liveEnded = event('live.ended', {
	details: z.strictObject({ number: z.string(), label: z.string() }),
	touches: ['documents'],
	says: (d) => `ended working on ${d.number} live; it is a file again, at ${d.label}`
});

export const liveLayerGiven = event('live.layer-given', {
	details: z.strictObject({ number: z.string(), layer: z.string(), from: z.string(), to: z.string() }),
	touches: ['documents'],
	says: (d) => `gave the layer ${d.layer} of ${doc(d)} from ${d.from} to ${d.to}`
});

export const livePictureAdded = event('live.picture-added', {
	details: z.strictObject({ number: z.string(), file: z.string(), hash: z.string() }),
	touches: ['documents'],
	says: (d) => `put the picture ${d.file} at the disposal of ${doc(d)}`
});

export const liveWritten = event('live.written', {
	details: z.strictObject({ label: z.optional(z.string()), number: z.string() }),
	touches: ['documents'],
	says: (d) => `wrote in ${d.number}, which is edited together`
});

export const marksCarried = event('marks.carried', {
	details: z.strictObject({
		number: z.string(),
		label: z.string(),
		from: z.string(),
		marks: z.number(),
		changed: z.number()
	}),
	touches: ['documents'],
	says: (d) =>
		`carried ${plural(Number(d.marks ?? 0), 'mark')} on ${d.number} over from ${d.from} to ${d.label}`
});

export const marksDrawn = event('marks.drawn', {
	details: z.strictObject({ label: z.optional(z.string()), number: z.string() }),
	touches: ['documents'],
	says: (d) => `marked up ${doc(d)}`
});
