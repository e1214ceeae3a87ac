import { customAlphabet } from 'nanoid';

/** An id for something that is added to a live document; the server takes no other letters. */
export const newId = customAlphabet('23456789abcdefghjkmnpqrstuvwxyz', 10);
