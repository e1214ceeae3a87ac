import type { AnswerOf } from '../../client/cupboard';

/** A document as its view answers it. */
export type DocumentView = AnswerOf<'documentView'>;
