import { AppError } from '../http/app-error';
import { keyHolder } from './keys';
import { isOpen } from './open';
import { KEY_COOKIE } from '../../contract/key-cookie';
import { LOCAL, ROLE_WORDS, suffices, type Person, type Role } from '../../contract/person';
import { sessionOf } from './sessions';

/** Who may use a route: anyone, or people from a role upwards. */
export type Who = 'anyone' | Role;

/** Who asks, by the session of a browser or the key of a machine; undefined for nobody known. */
export async function whoAsks(headers: Headers): Promise<Person | undefined> {
  // A key that is shown is looked at, wherever: one that was withdrawn opens nothing.
  const key = /^Bearer (\S+)$/i.exec(headers.get('authorization') ?? '')?.[1] ?? keyInCookie(headers);
  if (key !== undefined) return keyHolder(key);
  return isOpen() ? (await sessionOf(headers))?.person : LOCAL;
}

/** The key of a browser without a window, whose workers fetch files of pieces without being able to show it otherwise. */
function keyInCookie(headers: Headers): string | undefined {
  const found = new RegExp(`(?:^|; *)${KEY_COOKIE}=([\\w.-]+)`).exec(headers.get('cookie') ?? '');
  return found?.[1];
}

/**
 * Lets a request in, or not.
 *
 * @throws AppError 401 for nobody known, 403 for somebody who may not
 */
export async function admit(who: Who, request: Request): Promise<Person | undefined> {
  const person = await whoAsks(request.headers);
  if (who === 'anyone') return person;
  if (!person)
    throw new AppError(
      401,
      request.headers.has('authorization')
        ? 'This key is not known here, was withdrawn, or its time is over. Ask the owner for another.'
        : 'Sign in first. Without an account you need an invitation from the owner.',
    );
  if (!suffices(person.role, who))
    throw new AppError(
      403,
      `This needs the role “${ROLE_WORDS[who].title}”, and yours is “${ROLE_WORDS[person.role].title}”. The owner can change it.`,
    );
  return person;
}
