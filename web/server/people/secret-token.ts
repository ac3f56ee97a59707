import { createHash, randomBytes } from 'node:crypto';

/** A secret that is handed out once: 256 bits, as 43 letters that can stand in an address. */
export function newToken(): string {
  return randomBytes(32).toString('base64url');
}

/** What is kept of it. It has so many bits that it cannot be guessed from its digest, without salt or slowness. */
export function digestOf(token: string): string {
  return createHash('sha256').update(token).digest('hex');
}
