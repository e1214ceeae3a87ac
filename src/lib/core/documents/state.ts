import type { Purpose } from '../revisions/revisions';

/** The four states of a document (ISO 19650-1): work in progress, shared, published, archived. */
export const STATES = ['wip', 'shared', 'published', 'archived'] as const;

/** Purposes whose issue makes a document Published where a project says nothing else. */
export const USUAL_PUBLISHING: readonly Purpose[] = ['construction', 'as-built'];

/** The state that a document has once it is issued for a purpose (T4): Published, or Shared. */
export const stateIssued = (purpose: Purpose, publishing: readonly Purpose[] = USUAL_PUBLISHING) =>
	publishing.includes(purpose) ? 'published' : 'shared';
