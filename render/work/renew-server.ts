/** The thread that renews leases with a remote server. */
import { workerData } from 'node:worker_threads';
import { renewing } from './renewing';
import { renewAt, type ServerAccess } from './server-request';

const access = workerData as ServerAccess;
renewing((lease) => renewAt(access, lease), access.every);
