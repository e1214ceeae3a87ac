import { getContext, setContext } from 'svelte';

const KEY = Symbol('who is away');
const NOBODY: ReadonlyMap<string, string> = new Map();

/** Who is away, by id, with what is said of it where one of them can be picked. */
export type Away = () => ReadonlyMap<string, string>;

/** Tells every picker beneath who is away. */
export const tellAway = (away: Away): void => void setContext(KEY, away);
/** Who is away as it was told above; nobody where nothing was. */
export const whoIsAway = (): Away => getContext<Away | undefined>(KEY) ?? (() => NOBODY);
