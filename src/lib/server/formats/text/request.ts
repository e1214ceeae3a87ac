import type { TextFormat } from '../../../core/text/losses';
import type { About } from '../../../core/files/media';

/** What the worker needs to write a text: nothing it would have to ask the database for. */
export interface TextTask {
	task: 'text';
	json: unknown;
	about: About;
	format: TextFormat;
	/** Paths of the pictures' bytes, by hash. */
	pictures: Record<string, string>;
	/** Names of people who suggest, by id. */
	names: Record<string, string>;
}
