import { AppError } from '../http/app-error';
import { keyHolder } from './keys';
import { isOpen } from './open';
import { KEY_COOKIE } from '../../contract/key-cookie';
import { LOCAL, ROLE_WORDS, suffices, type Person, type Role } from '../../contract/person';
import { sessionOf } from './sessions';

/** Who may use a route: anyone, or people from a role upwards. */
export type Who = 'anyone' | Role;

/** The caller, by browser session or worker key; undefined if unknown. */
export async function whoAsks(headers: Headers): Promise<Person | undefined> {
  // A presented key is always checked: a withdrawn one opens nothing.
  const key = /^Bearer (\S+)$/i.exec(headers.get('authorization') ?? '')?.[1] ?? keyInCookie(headers);
  if (key !== undefined) return keyHolder(key);
  return isOpen() ? (await sessionOf(headers))?.person : LOCAL;
}

/** Key of a browser without a window, whose workers fetch files of pieces and cannot present it otherwise. */
function keyInCookie(headers: Headers): string | undefined {
  const found = new RegExp(`(?:^|; *)${KEY_COOKIE}=([\\w.-]+)`).exec(headers.get('cookie') ?? '');
  return found?.[1];
}

/**
 * Lets a request in.
 *
 * @throws AppError 401 for unknown callers, 403 for insufficient roles
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
