/** What each job is given. All are safe to do twice. */
export interface JobData {
	'read-content': { hash: string };
	'draw-preview': { hash: string };
	'send-mail': { mailId: string };
	/** Marks that were drawn with the verdicts on a document come onto the sheet of its version. */
	'lay-drawn': { release: string; document: string };
	'check-arrival': { arrivalId: string };
	'send-digests': Record<string, never>;
	'tell-overdue': Record<string, never>;
	'remind-stale-locks': Record<string, never>;
	'read-missed': Record<string, never>;
	'learn-words': Record<string, never>;
	'clean-uploads': Record<string, never>;
	/** One project, after an issue, or every one. */
	'sign-heads': { project?: string };
}
export type JobName = keyof JobData;
