import { launch } from './parts/launch.mjs';
import { command } from './parts/say.mjs';

await command(() => launch({ demo: true, fresh: process.argv.includes('--fresh') }));
