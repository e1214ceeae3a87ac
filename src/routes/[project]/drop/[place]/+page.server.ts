import { pageView } from '../../../page-data';
import { dropView } from '$lib/server/passes/views';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = (event) => pageView(event, dropView, { place: event.params.place });
