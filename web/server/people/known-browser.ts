import { createHmac, timingSafeEqual } from 'node:crypto';

/** Days that a browser stays known. */
const DAYS = 180;
const NAME = '__Host-maypole-known';

/** Proof that somebody signed in to an account in this browser; it grants no access itself. */
function proofFor(account: string): string {
  const secret = process.env.MAYPOLE_SECRET;
  if (!secret) throw new Error('MAYPOLE_SECRET is not set; start with ./maypole start --open, which sets it.');
  return createHmac('sha256', secret).update(`known browser\0${account}`).digest('base64url');
}

/** Whether a browser has signed in to an account before. */
export function isKnownBrowser(cookie: string | null, account: string): boolean {
  const proof = Buffer.from(proofFor(account));
  return [...(cookie ?? '').matchAll(new RegExp(`(?:^|; *)${NAME}=([\\w.-]+)`, 'g'))]
    .flatMap((m) => m[1].split('.'))
    .map((shown) => Buffer.from(shown))
    .some((shown) => shown.length === proof.length && timingSafeEqual(shown, proof));
}

/** Cookie that makes a browser known for this account and up to four others. */
export function knownBrowserCookie(cookie: string | null, account: string): string {
  const before = new RegExp(`(?:^|; *)${NAME}=([\\w.-]+)`).exec(cookie ?? '')?.[1].split('.') ?? [];
  const proofs = [...new Set([proofFor(account), ...before])].slice(0, 5);
  return `${NAME}=${proofs.join('.')}; Path=/; Max-Age=${DAYS * 86_400}; Secure; HttpOnly; SameSite=Lax`;
}
