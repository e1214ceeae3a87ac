import { makeTemplate } from './template';

/** The world that stories copy, unless `npm test` has made it already, beside other tests. */
export default async function setup(): Promise<void> {
	if (process.env.CUPBOARD_TEMPLATE !== 'made') await makeTemplate();
}
