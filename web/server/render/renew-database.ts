/** The thread that renews leases of the worker beside the application. */
import { renewing } from '@maypole/render/work/renewing';
import { database } from '../data/db';
import { renewWork } from './leases';

renewing((lease) => renewWork(database(), lease));
