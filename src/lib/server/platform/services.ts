import type { Config } from './config';
import type { Database } from './db';
import type { Inspector } from '../formats/inspector';
import type { Bodies } from './http/bodies';
import type { Jobs } from './jobs/jobs';
import type { Live } from '../trail/following';
import type { Rooms } from '../live/rooms/rooms';
import type { Store } from './store/store';

/** The parts of a running Cupboard. Made once a process by `startServices`, or by tests. */
export interface Services {
	config: Config;
	database: Database;
	store: Store;
	inspector: Inspector;
	jobs: Jobs;
	live: Live;
	rooms: Rooms;
	bodies: Bodies;
	close(): Promise<void>;
}
