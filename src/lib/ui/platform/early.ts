declare global {
	interface Window {
		/** What `app.html` keeps clicks with until the page answers, and the button that was clicked last. */
		earlyClick?: ((event: MouseEvent) => void) & { on?: HTMLButtonElement };
	}
}

/** Does what somebody clicked before the page could answer, and lets every later click through. */
export function answerEarlyClick(): void {
	const kept = window.earlyClick;
	if (!kept) return;
	removeEventListener('click', kept, true);
	delete window.earlyClick;
	if (kept.on?.isConnected) kept.on.click();
}
