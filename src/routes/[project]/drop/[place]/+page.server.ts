import { pageView } from '../../../page-data';
import { dropView } from '$lib/server/views/passes';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = (event) => pageView(event, dropView, { place: event.params.place });
