import { describe, expect, it } from 'vitest';
import { clientAddress, trustedProxies } from './address';

const from = (socket: string, forwarded: string | null, trusted: string[] = []) =>
	clientAddress(
		socket,
		new Headers(forwarded ? { 'x-forwarded-for': forwarded } : {}),
		trustedProxies(trusted)
	);

describe('where a request comes from', () => {
	it('is the socket, whatever a header says, unless a named proxy says it', () => {
		expect(from('203.0.113.9', '1.2.3.4')).toBe('203.0.113.9');
		expect(from('::ffff:203.0.113.9', null)).toBe('203.0.113.9');
		expect(from('10.0.0.2', '1.2.3.4', ['10.0.0.0/8'])).toBe('1.2.3.4');
	});

	it('is what the outermost named proxy saw, not what its client claims', () => {
		expect(from('10.0.0.2', '6.6.6.6, 1.2.3.4, 10.0.0.1', ['10.0.0.0/8'])).toBe('1.2.3.4');
		expect(from('10.0.0.2', 'nonsense', ['10.0.0.0/8'])).toBe('10.0.0.2');
		expect(from('::1', '2001:db8::7', ['::1'])).toBe('2001:db8::7');
	});

	it('is asked only of proxies that are addresses', () => {
		expect(() => trustedProxies(['proxy.example'])).toThrow('no address');
	});
});
