/** What each job is given. All are safe to do twice. */
export interface JobData {
	'make-preview': { hash: string };
	'send-mail': { mailId: string };
	'check-arrival': { arrivalId: string };
	'send-digests': Record<string, never>;
	'tell-overdue': Record<string, never>;
	'remind-stale-locks': Record<string, never>;
	'clean-uploads': Record<string, never>;
}
export type JobName = keyof JobData;
