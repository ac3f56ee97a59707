import { mapOwners } from '../piece/walk';
import type { Start } from './start';

/**
 * The document of a starting point with sequential identifiers, so that it is reproducible, and with only what differs
 * from the declarations, so that a new document version leaves it as it is.
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
