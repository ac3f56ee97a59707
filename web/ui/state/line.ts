import type { Line } from '@/contract/line';
import { keepText, keptText } from './browser-store';

const KEY = 'maypole-browser';
let client: string | undefined;
let browser: string | undefined;
/** Last sent version of each piece, and its number; resending the same text on the same base keeps the number. */
const last = new Map<string, { readonly source: string; readonly basedOn: number; readonly count: number }>();
let counted = 0;

/** Identifier of this page, made when it was opened; unique. */
export const thisPage = (): string => (client ??= freshId());

/** Identifier of this browser, shared by its tabs if it has storage. */
export function thisBrowser(): string {
  browser ??= keptText(KEY) ?? freshId();
  keepText(KEY, browser);
  return browser;
}

/**
 * Position of a version in this page's line: the server recognises it however often, by whatever way and in whatever
 * order it arrives. On another base it is another version: one that was kept beside may be sent again to continue from
 * the current revision.
 */
export function lineOf(piece: string, source: string, basedOn: number): Line {
  const before = last.get(piece);
  if (before?.source === source && before.basedOn === basedOn) return { client: thisPage(), count: before.count };
  last.set(piece, { source, basedOn, count: ++counted });
  return { client: thisPage(), count: counted };
}

/** `randomUUID` exists in secure contexts only (W3C Web Crypto). */
function freshId(): string {
  if (typeof crypto.randomUUID === 'function') return crypto.randomUUID();
  const bytes = crypto.getRandomValues(new Uint8Array(16));
  // RFC 9562, 5.4: version 4, variant 10.
  bytes[6] = (bytes[6] & 15) | 64;
  bytes[8] = (bytes[8] & 63) | 128;
  const hex = Array.from(bytes, (b) => b.toString(16).padStart(2, '0')).join('');
  return [8, 12, 16, 20, 32].map((end, i) => hex.slice([0, 8, 12, 16, 20][i], end)).join('-');
}
