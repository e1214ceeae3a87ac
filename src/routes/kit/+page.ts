import { error } from '@sveltejs/kit';
import { dev } from '$app/environment';

/** The parts that screens are made of, one below the other; while developing only. */
export function load() {
	if (!dev) error(404, { message: 'There is nothing here.' });
}
