/** Length of every id, in characters; the paths of places rely on it. */
export const ID_LENGTH = 10;
