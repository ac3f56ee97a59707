import { AppError } from '../http/app-error';

/** Machines show a key; a page of the application itself has a person at it, who was admitted already. */
export function admitWorker(request: Request): void {
  if (request.headers.has('authorization')) return;
  if (request.headers.get('sec-fetch-site') === 'same-origin') return;
  throw new AppError(401, 'Work is given to who shows a key. The owner makes one under Renders, Machines.');
}
