import { createHash, randomBytes } from 'node:crypto';

/** A secret that is handed out once: 256 bits, as 43 URL-safe characters. */
export function newToken(): string {
  return randomBytes(32).toString('base64url');
}

/** Its stored digest. With so many bits it needs neither salt nor slowness. */
export function digestOf(token: string): string {
  return createHash('sha256').update(token).digest('hex');
}
