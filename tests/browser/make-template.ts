import { makeTemplate } from './template';

await makeTemplate();
