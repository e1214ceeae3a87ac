import type { Actor, Proof } from '$lib/server/platform/runner/actor';
import type { Auth } from '$lib/server/platform/auth/auth';
import type { Services } from '$lib/server/platform/services';

declare global {
	namespace App {
		interface Error {
			message: string;
			code?: string;
			/** What stands over it, where that says more than that nothing is here. */
			heading?: string;
		}
		interface PageState {
			/** The passes that an issue has just made, told on the page of its release. */
			passes?: { recipient: string; name: string; link: string }[];
		}
		interface Locals {
			app: { services: Services; auth: Auth };
			actor: Actor;
			/** Network address that the request comes from, as far as it is known. */
			address: string;
			/** What the holder of a pass has proven in this browser. */
			proofs: Proof[];
		}
	}
}

export { App };
