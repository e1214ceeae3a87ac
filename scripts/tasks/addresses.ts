/** Writes the table of methods and paths that the browser carries along (`src/lib/client/addresses.ts`). */
import { writeFileSync } from 'node:fs';
import { addressTable } from './address-table';

writeFileSync('src/lib/client/addresses.ts', await addressTable());
