import { mapOwners } from '../piece/walk';
import type { Start } from './start';

/**
 * The document of a starting point with its identifiers in order, so that it is the same every time it is made, and
 * with what differs from the declarations alone, so that a new version of documents leaves it as it is.
 */
export function settledDocument(start: Start): string {
  const { version: _version, ...piece } = mapOwners(start.make(), ({ item, params }) => ({
    ...item,
    values: Object.fromEntries(
      Object.entries(item.values).filter(([n, v]) => JSON.stringify(v) !== JSON.stringify(params[n]?.default)),
    ),
  }));
  let text = JSON.stringify(piece);
  const ids = [...new Set([...text.matchAll(/"id":\s*"([a-z0-9]{8})"/g)].map((m) => m[1]))];
  ids.forEach((id, i) => (text = text.replaceAll(`"${id}"`, `"${i}"`)));
  return text;
}
