import { createHmac, timingSafeEqual } from 'node:crypto';

/** Days for which a browser is known by which somebody came in. */
const DAYS = 180;
const NAME = '__Host-maypole-known';

/** What a browser has once somebody came into an account by it: it proves that, and opens nothing by itself. */
function proofFor(account: string): string {
  const secret = process.env.MAYPOLE_SECRET;
  if (!secret) throw new Error('MAYPOLE_SECRET is not set; start with ./maypole start --open, which sets it.');
  return createHmac('sha256', secret).update(`known browser\0${account}`).digest('base64url');
}

/** Whether the browser of a request is one by which somebody came into an account before. */
export function isKnownBrowser(cookie: string | null, account: string): boolean {
  const proof = Buffer.from(proofFor(account));
  return [...(cookie ?? '').matchAll(new RegExp(`(?:^|; *)${NAME}=([\\w.-]+)`, 'g'))]
    .flatMap((m) => m[1].split('.'))
    .map((shown) => Buffer.from(shown))
    .some((shown) => shown.length === proof.length && timingSafeEqual(shown, proof));
}

/** The cookie by which a browser is known from now on, for this account and up to four others. */
export function knownBrowserCookie(cookie: string | null, account: string): string {
  const before = new RegExp(`(?:^|; *)${NAME}=([\\w.-]+)`).exec(cookie ?? '')?.[1].split('.') ?? [];
  const proofs = [...new Set([proofFor(account), ...before])].slice(0, 5);
  return `${NAME}=${proofs.join('.')}; Path=/; Max-Age=${DAYS * 86_400}; Secure; HttpOnly; SameSite=Lax`;
}
