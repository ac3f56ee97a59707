import { AppError } from '../http/app-error';
import { suffices, type Person } from '../../contract/person';

/**
 * Workers present a key with the right to run; a page of the application has been admitted by its person.
 *
 * @throws AppError 401 or 403
 */
export function admitWorker(request: Request, person: Person | undefined): void {
  if (request.headers.has('authorization')) {
    if (person && suffices(person.role, 'run')) return;
    throw new AppError(403, 'This key does not let a machine work on renders; it needs the role “Run”.');
  }
  if (request.headers.get('sec-fetch-site') === 'same-origin') return;
  throw new AppError(401, 'Work is given to who shows a key. The owner makes one under Renders, Machines.');
}
