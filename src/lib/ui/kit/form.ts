/** What is wrong, by the field of the act that it is about. */
export interface FormFaults {
	at: Record<string, string>;
}
/** Under this name a form lends its faults to its fields. */
export const FORM_FAULTS = Symbol('faults of a form');
