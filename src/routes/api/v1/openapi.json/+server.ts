import { json, type RequestHandler } from '@sveltejs/kit';
import { openApi } from '$lib/server/api/openapi';

export const GET: RequestHandler = ({ locals }) => json(openApi(locals.app.services.config.origin));
