/** A file that cannot be shown, with the reason in a sentence. */
export class Unreadable extends Error {}
