import type * as Y from 'yjs';
import { plainEdits } from '../../../core/drawing/item';
import { readBase, readEdits, rewriteDrawing } from '../../../core/drawing/shared';
import type { LiveKind } from '../../../core/live/live';
import { SCHEDULE_FORMATS } from '../../../core/schedule/exchange';
import { readSchedule, rewriteSchedule } from '../../../core/schedule/shared';
import { suggestionsIn } from '../../../core/text/suggestions';
import { TEXT_FORMATS } from '../../../core/text/losses';
import { readText, rewriteText } from '../../../core/text/shared';
import { MEDIA_TYPE, type About, type Ending, type WrittenFile } from '../../../core/files/media';
import { writeText } from '../../formats/text/write';
import type { Services } from '../../platform/services';

/** What differs between kinds of live document. */
interface KindWork {
	/** Kinds of file that it can be taken as. */
	formats: readonly Ending[];
	/** Writes what it holds as a file, in a worker thread. @param names of people who suggest, by id */
	write(
		services: Services,
		doc: Y.Doc,
		about: About,
		format: Ending,
		names: Record<string, string>
	): Promise<WrittenFile>;
	/** Changes it to hold what it held at an earlier time. */
	rewrite(doc: Y.Doc, then: Y.Doc): void;
	/** Ids of people whose suggestions stand in it. */
	authors(doc: Y.Doc): string[];
}

export const KINDS: Record<LiveKind, KindWork> = {
	text: {
		formats: TEXT_FORMATS,
		write: (services, doc, about, format, names) =>
			writeText(
				services,
				readText(doc),
				about,
				TEXT_FORMATS.find((f) => f === format)!,
				names
			),
		rewrite: (doc, then) => rewriteText(doc, readText(then)),
		authors: (doc) => suggestionsIn(readText(doc)).map((one) => one.author)
	},
	schedule: {
		formats: SCHEDULE_FORMATS,
		async write({ inspector }, doc, { number, title }, format) {
			const as = SCHEDULE_FORMATS.find((f) => f === format)!;
			const task = { schedule: readSchedule(doc), about: { number, title }, format: as };
			return { bytes: await inspector.write({ task: 'schedule', ...task }), mediaType: MEDIA_TYPE[as] };
		},
		rewrite: rewriteSchedule,
		authors: () => []
	},
	drawing: {
		formats: ['dxf'],
		async write({ inspector, store }, doc) {
			const path = await store.localPath(readBase(doc).hash);
			const bytes = await inspector.write({ task: 'drawing', path, edits: plainEdits(readEdits(doc)) });
			return { bytes, mediaType: MEDIA_TYPE.dxf };
		},
		rewrite: rewriteDrawing,
		authors: () => []
	}
};
