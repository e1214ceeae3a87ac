import { invalidate } from '$app/navigation';
import { navigating } from '$app/state';

/**
 * Asks again for what a page shows. Not while somebody is on the way to another page: that would cut the way
 * short, and the page they come to is loaded anew anyway.
 */
export async function refresh(key: string): Promise<void> {
	if (!navigating.to) await invalidate(key);
}
