/** The four states of a document (ISO 19650-1): work in progress, shared, published, archived. */
export const STATES = ['wip', 'shared', 'published', 'archived'] as const;
