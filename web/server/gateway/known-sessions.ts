import { createHash } from 'node:crypto';

/** Milliseconds for which the owner of a session is remembered; renewed by each request. */
const KNOWN = 300_000;
/** Most remembered sessions. */
const MOST = 10_000;

interface Known {
  readonly person: string;
  readonly until: number;
}
declare global {
  /** Global, since gateway and routes are bundled separately. */
  var maypoleSessions: Map<string, Known> | undefined;
}
const sessions = () => (globalThis.maypoleSessions ??= new Map());

/** Fingerprint of a session cookie: no secret is kept. */
function printOf(cookie: string | null | undefined): string | undefined {
  const token = /(?:^|; *)__Host-maypole\.session_token=([^;]+)/.exec(cookie ?? '')?.[1];
  return token && createHash('sha256').update(token).digest('base64');
}

/** Remembers whose session a cookie is. */
export function noteSession(cookie: string | null, person: string, now = Date.now()): void {
  const print = printOf(cookie);
  if (!print) return;
  const all = sessions();
  all.delete(print);
  all.set(print, { person, until: now + KNOWN });
  if (all.size > MOST) all.delete(all.keys().next().value!);
}

/**
 * Whose session a cookie is, if known; undefined otherwise. An invented cookie belongs to nobody, and so gets no quota
 * of its own.
 */
export function personOf(cookie: string | undefined, now = Date.now()): string | undefined {
  const print = printOf(cookie);
  const known = print === undefined ? undefined : sessions().get(print);
  return known && known.until > now ? known.person : undefined;
}
