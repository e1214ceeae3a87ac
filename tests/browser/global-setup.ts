import { makeTemplate } from './world';

/** Makes the world that stories copy, unless `npm test` made it already beside the integration tests. */
export default async function setup(): Promise<void> {
	if (!process.env.CUPBOARD_TEMPLATE_MADE) await makeTemplate();
}
