/** Why a file cannot be read, in a sentence for people. */
export class Unreadable extends Error {}
