import { performance } from 'node:perf_hooks';
import { HocuspocusProvider, HocuspocusProviderWebsocket } from '@hocuspocus/provider';
import WebSocket from 'ws';
import * as Y from 'yjs';
import { FOLDER, READER } from './large-project';
import type { Line } from './measure';
import { asController, call, stamp } from './reader';

const PEOPLE = 30;
/** Every person types this often, in milliseconds, for so long. */
const EVERY = 400;
const DURATION = 6_000;

/** Somebody with the text open: hears of every letter, and types in a paragraph of their own. */
export class Typist {
	readonly doc = new Y.Doc();
	private readonly socket: HocuspocusProviderWebsocket;
	private readonly provider: HocuspocusProvider;
	readonly ready: Promise<void>;

	constructor(address: string, room: string) {
		const Signed = class extends WebSocket {
			constructor(to: string) {
				super(to, { headers: { authorization: `Bearer ${READER.token}` } });
			}
		};
		this.socket = new HocuspocusProviderWebsocket({ url: address, WebSocketPolyfill: Signed });
		this.provider = new HocuspocusProvider({
			websocketProvider: this.socket,
			name: room,
			document: this.doc,
			token: 'token'
		});
		// Whoever says nothing of themselves is taken for somebody who speaks in another's place.
		this.provider.awareness!.setLocalStateField('user', { id: READER.id, name: 'The Reader' });
		this.ready = new Promise((done) => this.provider.on('synced', () => done()));
		this.provider.attach();
	}

	/** The words of a paragraph of the text. */
	words(paragraph: number): Y.XmlText {
		return (this.doc.getXmlFragment('text').get(paragraph) as Y.XmlElement).get(0) as Y.XmlText;
	}
	close(): void {
		this.provider.destroy();
		this.socket.destroy();
	}
}

async function measure(room: string, people: number): Promise<number> {
	const base = process.env.ORIGIN!.replace(/^http/, 'ws');
	const all = Array.from({ length: people }, () => new Typist(`${base}/live/rooms/${room}`, room));
	await Promise.all(all.map((one) => one.ready));
	const sent = all.map((): number[] => []);
	const begun = all.map((one, i) => one.words(i).length);
	const taken: number[] = [];
	all.forEach((listener, at) =>
		all.forEach((_, typist) => {
			if (typist === at) return;
			let heard = 0;
			listener.words(typist).observe((event) => {
				const now = performance.now();
				for (const length = event.target.length - begun[typist]!; heard < length; heard++)
					taken.push(now - sent[typist]![heard]!);
			});
		})
	);
	const end = performance.now() + DURATION;
	await Promise.all(
		all.map(async (one, i) => {
			await new Promise((done) => setTimeout(done, (EVERY / people) * i));
			while (performance.now() < end) {
				sent[i]!.push(performance.now());
				const words = one.words(i);
				words.insert(words.length, 'x');
				await new Promise((done) => setTimeout(done, EVERY));
			}
		})
	);
	await new Promise((done) => setTimeout(done, 500));
	all.forEach((one) => one.close());
	const expected = sent.reduce((n, one) => n + one.length, 0) * (people - 1);
	if (taken.length !== expected) throw new Error(`${taken.length} of ${expected} letters arrived`);
	return taken.sort((a, b) => a - b)[Math.floor(taken.length * 0.95)]!;
}

/** From a keystroke to everybody else's document, with all of them typing, and with two. */
export async function together(): Promise<Line[]> {
	return asController(async () => {
		const paragraph = {
			type: 'paragraph',
			content: [{ type: 'text', text: 'The quay wall stands on piles. ' }]
		};
		const { id } = await call<{ id: string }>('POST', `/places/${FOLDER}/live-texts`, {
			number: `LIVE-${stamp()}`,
			title: 'A text that all write in',
			text: { type: 'doc', content: Array.from({ length: 200 }, () => paragraph) }
		});
		const { room } = await call<{ room: string }>('GET', `/documents/${id}/live`);
		const two = await measure(room, 2);
		const many = await measure(room, PEOPLE);
		return [
			{
				what: `keystroke to the others, ${PEOPLE} people typing in one text`,
				value: many,
				unit: 'ms p95',
				budget: 50,
				baseline: { what: 'with two people', value: two }
			}
		];
	});
}
