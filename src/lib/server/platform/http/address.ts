import { BlockList, isIP } from 'node:net';

/** The proxies whose word is believed, from addresses and networks such as `10.0.0.0/8`. Raises an Error for others. */
export function trustedProxies(named: readonly string[]): BlockList {
	const list = new BlockList();
	for (const one of named) {
		const [address = '', bits] = one.split('/');
		const kind = isIP(address) === 6 ? 'ipv6' : 'ipv4';
		if (!isIP(address)) throw new Error(`CUPBOARD_TRUSTED_PROXIES names “${one}”, which is no address.`);
		if (bits === undefined) list.addAddress(address, kind);
		else list.addSubnet(address, Number(bits), kind);
	}
	return list;
}

/** An IPv4 address that came over an IPv6 socket, as itself. */
const plain = (address: string) => address.replace(/^::ffff:(?=\d+\.)/i, '');

const isTrusted = (trusted: BlockList, address: string) =>
	isIP(address) !== 0 && trusted.check(address, isIP(address) === 6 ? 'ipv6' : 'ipv4');

/**
 * Where a request comes from. Anybody can send X-Forwarded-For, so it counts only as far as named proxies wrote it: from
 * its end, the first address that is none of them.
 */
export function clientAddress(socket: string, headers: Headers, trusted: BlockList): string {
	let at = plain(socket);
	const forwarded = (headers.get('x-forwarded-for') ?? '').split(',').map((one) => plain(one.trim()));
	while (isTrusted(trusted, at)) {
		const before = forwarded.pop();
		if (!before || !isIP(before)) break;
		at = before;
	}
	return at;
}
