import canonicalize from 'canonicalize';

/** Where a project's chain ended at a moment; signed, it proves later that nothing was cut off behind it (V2). */
export interface Head {
	format: 'cupboard-head/1';
	project: string;
	code: string;
	seq: number;
	hash: string;
	/** ISO 8601 in UTC. */
	at: string;
}

/** A head as it is kept: with the installation's Ed25519 signature over {@link headText}, base64. */
export type SignedHead = Head & { signature: string };

/** The text that is signed: canonical JSON (RFC 8785). */
export function headText({ format, project, code, seq, hash, at }: Head): string {
	return canonicalize({ format, project, code, seq, hash, at })!;
}
