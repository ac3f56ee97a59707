import { database } from '../data/db';
import type { Visit } from '../http/visit';
import { recordEvent } from './audit-log';

/** Records a failed sign-in. */
export function noteFailed(visit: Visit, account: string): void {
  recordEvent(database(), {
    what: 'failed to sign in',
    on: account,
    person: { id: 'nobody', name: 'Nobody known', role: 'look' },
    client: visit.client,
  });
}
