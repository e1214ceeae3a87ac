import { launch } from './parts/launch.mjs';
import { command } from './parts/say.mjs';

await command(() => launch({ demo: true, dev: true, fresh: process.argv.includes('--fresh') }));
