import type { Line } from '@/contract/line';
import { keepText, keptText } from './browser-store';

const KEY = 'maypole-browser';
let client: string | undefined;
let browser: string | undefined;
/** What was last sent of each piece, and its number; a text that is sent again on the same base has the number it had. */
const last = new Map<string, { readonly source: string; readonly basedOn: number; readonly count: number }>();
let counted = 0;

/** The number of this page, made when it was opened; another page never has it. */
export const thisPage = (): string => (client ??= freshId());

/** The number of this browser, the same in all its tabs where it keeps anything. */
export function thisBrowser(): string {
  browser ??= keptText(KEY) ?? freshId();
  keepText(KEY, browser);
  return browser;
}

/**
 * Where a version of a piece belongs among all that this page sends: however often it is sent, by whatever way, and in
 * whatever order it arrives, the server knows it again by that. On another base it is another version: one that was kept
 * beside may be sent once more to go on from what is shown.
 */
export function lineOf(piece: string, source: string, basedOn: number): Line {
  const before = last.get(piece);
  if (before?.source === source && before.basedOn === basedOn) return { client: thisPage(), count: before.count };
  last.set(piece, { source, basedOn, count: ++counted });
  return { client: thisPage(), count: counted };
}

/** `randomUUID` is there over https and on this machine alone (W3C Web Crypto, secure contexts). */
function freshId(): string {
  if (typeof crypto.randomUUID === 'function') return crypto.randomUUID();
  const bytes = crypto.getRandomValues(new Uint8Array(16));
  // RFC 9562, 5.4: version 4, variant 10.
  bytes[6] = (bytes[6] & 15) | 64;
  bytes[8] = (bytes[8] & 63) | 128;
  const hex = Array.from(bytes, (b) => b.toString(16).padStart(2, '0')).join('');
  return [8, 12, 16, 20, 32].map((end, i) => hex.slice([0, 8, 12, 16, 20][i], end)).join('-');
}
