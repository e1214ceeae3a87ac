import type { SubmitFunction } from '@sveltejs/kit';

const sending = new WeakSet<HTMLFormElement>();

/** For `use:enhance`: a form that is on its way is not sent a second time, however often its button is pressed. */
export const submitOnce: SubmitFunction = ({ formElement, cancel }) => {
	if (sending.has(formElement)) return cancel();
	sending.add(formElement);
	return async ({ update }) => {
		await update().finally(() => sending.delete(formElement));
	};
};
