import { redirect } from '@sveltejs/kit';
import { SUBJECTS } from '$lib/core/help/subjects';
import type { PageLoad } from './$types';

export const load: PageLoad = ({ params }) => redirect(307, `/${params.project}/help/${SUBJECTS[0]!.id}`);
