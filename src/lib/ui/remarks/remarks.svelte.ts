import type { Anchor, Mention, RemarkRow } from '../../core/remarks/remarks';
import { mentionText } from '../../core/remarks/remarks';
import { attempt, call } from '../platform/api';

/** Where a remark that is being written will stand; passages are given by lasting positions. */
export type DraftAnchor = Exclude<Anchor, { on: 'passage' }> | { on: 'passage'; from: string; to: string };

/** The remarks on one document, as its page shows them beside the sheet and on it. */
export class Remarks {
	rows = $state.raw<RemarkRow[]>([]);
	mayRemark = $state(false);
	/** The remark that is being written, or null. */
	draft = $state<{ anchor: DraftAnchor; quote: string } | null>(null);
	/** A place on the sheet is being chosen. */
	picking = $state(false);
	/** The remark that is looked at. */
	chosen = $state<number | null>(null);

	constructor(readonly document: string) {}

	get open(): RemarkRow[] {
		return this.rows.filter((r) => !r.settled);
	}

	async load(): Promise<void> {
		const answer = await attempt(() =>
			call<{ remarks: RemarkRow[]; mayRemark: boolean }>('GET', `/documents/${this.document}/remarks`)
		);
		if (!answer) return;
		this.rows = answer.remarks;
		this.mayRemark = answer.mayRemark;
	}

	begin(anchor: DraftAnchor, quote = ''): void {
		this.picking = false;
		this.draft = { anchor, quote };
	}

	private async send(method: 'POST' | 'PUT' | 'DELETE', path: string, body?: unknown): Promise<void> {
		await call(method, `/documents/${this.document}/remarks${path}`, body);
		await this.load();
	}
	/** Adds the remark that is being written. Raises what the server answers. */
	async add(text: string, mentions: Mention[], label: string, more: Assigned): Promise<void> {
		if (!this.draft) return;
		const { anchor, quote } = this.draft;
		await this.send('POST', '', { anchor, quote, label, text: withMentions(text, mentions), ...more });
		this.draft = null;
	}
	answer(number: number, text: string, mentions: Mention[]): Promise<void> {
		return this.send('POST', `/${number}/answers`, { text: withMentions(text, mentions) });
	}
	settle(number: number, note: string): Promise<void> {
		return this.send('POST', `/${number}/settled`, { note });
	}
	reopen(number: number): Promise<void> {
		return this.send('DELETE', `/${number}/settled`);
	}
	assign(number: number, assigned: Assigned): Promise<void> {
		return this.send('PUT', `/${number}/assigned`, assigned);
	}
}

/** To whom a remark is given, and by when. */
export interface Assigned {
	assign?: { kind: 'person' | 'department'; id: string };
	due?: string;
}

/** What people write as @Name, as the server keeps it. */
function withMentions(text: string, mentions: Mention[]): string {
	// Longer names first, so that “Oke Lindvar” is not taken for “Oke”.
	return [...mentions]
		.sort((a, b) => b.name.length - a.name.length)
		.reduce((said, one) => said.split(`@${one.name}`).join(mentionText(one)), text);
}
