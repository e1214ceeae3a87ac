import { readFileSync } from 'node:fs';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { addressTable } from '../../../scripts/tasks/address-table';
import { CONTRACTS, FILE_CONTRACTS } from '../contract';
import { METHOD_OVERRIDE } from '../core/acts/api';
import { addressOf, cupboard } from './cupboard';

const asked: { address: string; method: string; body: unknown; asks?: string }[] = [];
beforeEach(() => {
	type Asked = { method: string; body?: string; headers: Record<string, string> };
	vi.stubGlobal('fetch', async (address: string, { method, body, headers }: Asked) => {
		const asks = headers[METHOD_OVERRIDE];
		asked.push({ address, method, body: body && JSON.parse(body), ...(asks ? { asks } : {}) });
		return new Response('{}', { headers: { 'content-type': 'application/json' } });
	});
});
afterEach(() => {
	asked.splice(0);
	vi.unstubAllGlobals();
});

describe('the contract', () => {
	const all = [...CONTRACTS, ...FILE_CONTRACTS];
	const methodOf = (one: (typeof all)[number]) => ('method' in one ? one.method : 'GET');

	it('names everything once, and gives everything an address of its own', () => {
		const names = all.map((one) => one.name);
		expect(new Set(names).size).toBe(names.length);
		const addresses = all.map((one) => `${methodOf(one)} ${one.path.replace(/\{\w+\}/g, '{}')}`);
		expect(addresses.filter((one, i) => addresses.indexOf(one) !== i)).toEqual([]);
	});

	it('takes by its input whatever stands in its path', () => {
		for (const { name, path, input } of all)
			for (const [, field] of path.matchAll(/\{(\w+)\}/g))
				expect(Object.keys(input.shape), name).toContain(field);
	});

	it('is what the browser carries along', async () => {
		expect(readFileSync('src/lib/client/addresses.ts', 'utf8'), 'run “npm run addresses”').toBe(
			await addressTable()
		);
	});
});

describe('the client', () => {
	it('fills paths and sends what is left as the body', async () => {
		await cupboard.takeLock({ document: 'abcdefghjk', purpose: 'hinge' });
		expect(asked).toEqual([
			{ address: '/api/v1/documents/abcdefghjk/lock', method: 'POST', body: { purpose: 'hinge' } }
		]);
	});

	it('asks with a query: lists once for each member, and nothing for what is not there', async () => {
		await cupboard.proposals({ place: 'abcdefghjk', files: ['a b.pdf', 'c&d.pdf'] });
		await cupboard.documentsIn({ place: 'abcdefghjk', limit: 5, after: undefined });
		expect(asked.map(({ address }) => address)).toEqual([
			'/api/v1/places/abcdefghjk/proposals?files=a+b.pdf&files=c%26d.pdf',
			'/api/v1/places/abcdefghjk/documents?limit=5'
		]);
		expect(asked.every(({ body }) => body === undefined)).toBe(true);
	});

	it('asks with a body what is too long for an address', async () => {
		const files = Array.from({ length: 300 }, (_, i) => `Hinge details, sheet ${i}.pdf`);
		await cupboard.proposals({ place: 'abcdefghjk', files });
		expect(asked).toEqual([
			{ address: '/api/v1/places/abcdefghjk/proposals', method: 'POST', body: { files }, asks: 'GET' }
		]);
	});

	it('keeps what stands in a path from leaving its place', () => {
		expect(addressOf('versionFile', { document: 'abcdefghjk', label: '../x', download: '' })).toBe(
			'/api/v1/documents/abcdefghjk/versions/..%2Fx/file?download='
		);
	});
});
