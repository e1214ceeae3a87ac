import type { z } from 'zod';
import { API } from '../core/acts/api';
import type { Method } from '../contract/act';
import type { Contracts } from '../contract';
import type { FILES } from '../contract/files';
import { ADDRESSES } from './addresses';
import { call } from './call';

/** What an operation is given: as its schema takes it, so that what has a default may be left out. */
export type InputOf<N extends keyof Contracts> = z.input<Contracts[N]['input']>;
/** What an operation answers with. */
export type AnswerOf<N extends keyof Contracts> = z.output<Contracts[N]['output']>;

type Client = { [N in keyof Contracts]: (input: InputOf<N>) => Promise<AnswerOf<N>> };
type Values = Record<string, unknown>;

/** Fills the {parameters} of a path, and gives it with what was not used up. */
function filled(path: string, values: Values): { path: string; rest: Values } {
	const rest = { ...values };
	const done = path.replace(/\{(\w+)\}/g, (_, name: string) => {
		const value = rest[name];
		delete rest[name];
		return encodeURIComponent(String(value));
	});
	return { path: done, rest };
}

/** Longest address that is asked for; a longer question goes as a body. */
const LONGEST = 4_000;

/** Values as a query; what is not there is left out, and a list stands there once for each of its members. */
function queryOf(values: Values): string {
	const query = new URLSearchParams();
	for (const [name, value] of Object.entries(values)) {
		if (value === undefined || value === null) continue;
		for (const one of Array.isArray(value) ? value : [value]) query.append(name, String(one));
	}
	const text = query.toString();
	return text && `?${text}`;
}

/**
 * How an operation is asked for over HTTP: its method, its path after the API's own, and what goes into the body. A
 * question has a body where it is too long for an address.
 */
export function requestOf<N extends keyof Contracts>(
	name: N,
	input: InputOf<N>
): { method: 'GET' | Method; path: string; body?: Values } {
	const [method, pattern] = ADDRESSES[name];
	const { path, rest } = filled(pattern, input as Values);
	if (method !== 'GET') return { method, path, body: rest };
	const address = path + queryOf(rest);
	return address.length > LONGEST ? { method, path, body: rest } : { method, path: address };
}

/**
 * Everything that can be asked of Cupboard or changed there, by its name: `cupboard.takeLock({ document, purpose })`.
 * Each raises `CallError` for what the server refuses, with its sentence. The contract lends the types; in the browser
 * only methods and paths are carried along (`addresses.ts`).
 */
export const cupboard = new Proxy({} as Client, {
	get: (_, name: keyof Contracts) => (input: InputOf<keyof Contracts>) => {
		const { method, path, body } = requestOf(name, input);
		return call(method, path, body);
	}
});

/** The address of bytes or of a stream, for links, pictures and requests. */
export function addressOf<N extends keyof typeof FILES>(
	name: N,
	input: z.input<(typeof FILES)[N]['input']>
): string {
	const { path, rest } = filled(ADDRESSES[name][1], input as Values);
	return API + path + queryOf(rest);
}
