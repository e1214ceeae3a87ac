import { readFileSync } from 'node:fs';
import { format, type FormatConfig } from 'oxfmt';
import { CONTRACTS, FILE_CONTRACTS } from '../../src/lib/contract';

/** The text of `src/lib/client/addresses.ts`, made from the contract. */
export async function addressTable(): Promise<string> {
	const all = [...CONTRACTS, ...FILE_CONTRACTS].sort((a, b) => (a.name < b.name ? -1 : 1));
	const lines = all.map((one) => {
		const method = 'method' in one ? one.method : 'GET';
		return `${one.name}: ['${method}', '${one.path}']`;
	});
	const text = `/** Made from the contract by \`npm run addresses\`; a test holds it to it. */
export const ADDRESSES = { ${lines.join(',\n')} } as const;`;
	const house = JSON.parse(readFileSync('.oxfmtrc.json', 'utf8')) as FormatConfig;
	return (await format('addresses.ts', text, house)).code;
}
