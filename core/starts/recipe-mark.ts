import { writePiece } from '../piece/read';
import type { Start } from './start';

/** The document of a starting point with its identifiers in order, so that it is the same every time it is made. */
export function settledDocument(start: Start): string {
  let text = writePiece(start.make());
  const ids = [...new Set([...text.matchAll(/"id":\s*"([a-z0-9]{8})"/g)].map((m) => m[1]))];
  ids.forEach((id, i) => (text = text.replaceAll(`"${id}"`, `"${i}"`)));
  return text;
}
