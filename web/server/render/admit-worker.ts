import { AppError } from '../http/app-error';
import { suffices, type Person } from '../../contract/person';

/**
 * Machines show a key that lets them run; a page of the application itself has a person at it, who was admitted already.
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
