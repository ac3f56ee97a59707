import { database } from '../db';
import type { Visit } from '../http/visit';
import { noteDeed } from './trail';

/** Writes down that somebody did not come in. */
export function noteFailed(visit: Visit, account: string): void {
  noteDeed(database(), {
    what: 'failed to sign in',
    on: account,
    person: { id: 'nobody', name: 'Nobody known', role: 'look' },
    client: visit.client,
  });
}
