import { Redis } from '@hocuspocus/extension-redis';

/** What carries rooms from process to process, by the Redis at an address. */
export function betweenProcesses(url: string): Redis {
	const { hostname, port, username, password } = new URL(url);
	return new Redis({
		host: hostname,
		port: Number(port) || 6379,
		options: { ...(username ? { username } : {}), ...(password ? { password } : {}) }
	});
}
