import { createHash } from 'node:crypto';

/** Milliseconds for which a session is taken to be whose it was; asked anew with every request. */
const KNOWN = 300_000;
/** Sessions that are remembered at once. */
const MOST = 10_000;

interface Known {
  readonly person: string;
  readonly until: number;
}
declare global {
  /** Of the process, since the way in and the routes are built apart. */
  var maypoleSessions: Map<string, Known> | undefined;
}
const sessions = () => (globalThis.maypoleSessions ??= new Map());

/** The cookie of a session, as a fingerprint: nothing secret is kept. */
function printOf(cookie: string | null | undefined): string | undefined {
  const token = /(?:^|; *)__Host-maypole\.session_token=([^;]+)/.exec(cookie ?? '')?.[1];
  return token && createHash('sha256').update(token).digest('base64');
}

/** Notes whose session a cookie was found to be, by who has looked it up. */
export function noteSession(cookie: string | null, person: string, now = Date.now()): void {
  const print = printOf(cookie);
  if (!print) return;
  const all = sessions();
  all.delete(print);
  all.set(print, { person, until: now + KNOWN });
  if (all.size > MOST) all.delete(all.keys().next().value!);
}

/**
 * Whose session a cookie is, as far as that was looked up of late; undefined otherwise. A cookie that somebody makes up
 * is nobody's, so that it opens no line of its own.
 */
export function personOf(cookie: string | undefined, now = Date.now()): string | undefined {
  const print = printOf(cookie);
  const known = print === undefined ? undefined : sessions().get(print);
  return known && known.until > now ? known.person : undefined;
}
