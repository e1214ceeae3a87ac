import { makeTemplate } from './world';

await makeTemplate();
