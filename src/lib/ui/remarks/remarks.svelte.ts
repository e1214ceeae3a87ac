import type { Mention, RemarkRow } from '../../core/remarks/remarks';
import { mentionText } from '../../core/remarks/remarks';
import { cupboard } from '../../client/cupboard';
import { attempt } from '../platform/api';
import type { DraftAnchor, OnSheet } from './on-sheet';

/** The remarks on one document, as its page shows them beside the sheet and on it. */
export class Remarks implements OnSheet {
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
		const answer = await attempt(() => cupboard.remarks({ document: this.document }));
		if (!answer) return;
		this.rows = answer.remarks;
		this.mayRemark = answer.mayRemark;
	}

	begin(anchor: DraftAnchor, quote = ''): void {
		this.picking = false;
		this.draft = { anchor, quote };
	}

	/** Does something about remarks, and shows what became of them. Raises what the server answers. */
	private async after(doing: Promise<unknown>): Promise<void> {
		await doing;
		await this.load();
	}
	/** Adds the remark that is being written. Raises what the server answers. */
	async add(text: string, mentions: Mention[], label: string, more: Assigned): Promise<void> {
		if (!this.draft) return;
		const { anchor, quote } = this.draft;
		const said = withMentions(text, mentions);
		await this.after(
			cupboard.addRemark({ document: this.document, anchor, quote, label, text: said, ...more })
		);
		this.draft = null;
	}
	answer(remark: number, text: string, mentions: Mention[]): Promise<void> {
		const { document } = this;
		return this.after(cupboard.answerRemark({ document, remark, text: withMentions(text, mentions) }));
	}
	settle(remark: number, note: string): Promise<void> {
		return this.after(cupboard.settleRemark({ document: this.document, remark, note }));
	}
	reopen(remark: number): Promise<void> {
		return this.after(cupboard.reopenRemark({ document: this.document, remark }));
	}
	assign(remark: number, { assign, due }: Assigned): Promise<void> {
		return this.after(cupboard.assignRemark({ document: this.document, remark, assign: assign!, due }));
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
