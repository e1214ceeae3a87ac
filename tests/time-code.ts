import { createHmac } from 'node:crypto';

/** A time code as an authenticator makes it (RFC 6238: HMAC-SHA-1 over the half minutes since 1970, 6 digits), some of these `on`. */
export function timeCode(key: string, on = 0): string {
	const alphabet = 'ABCDEFGHIJKLMNOPQRSTUVWXYZ234567';
	const bits = [...key].map((c) => alphabet.indexOf(c).toString(2).padStart(5, '0')).join('');
	const secret = Buffer.from((bits.match(/.{8}/g) ?? []).map((byte) => parseInt(byte, 2)));
	const counter = Buffer.alloc(8);
	counter.writeBigUInt64BE(BigInt(Math.floor(Date.now() / 30_000) + on));
	const mac = createHmac('sha1', secret).update(counter).digest();
	const at = mac[19]! & 15;
	return String((mac.readUInt32BE(at) & 0x7fffffff) % 1_000_000).padStart(6, '0');
}
