/**
 * Whether a key is pressed with Ctrl, Alt or the key of the system, and so is a command. AltGr, by which many keyboards of
 * Europe write signs such as `[`, `@` and letters with accents, says that it is Ctrl and Alt, and is not.
 */
export const isHeld = (event: KeyboardEvent): boolean =>
	event.metaKey || ((event.ctrlKey || event.altKey) && !event.getModifierState('AltGraph'));
