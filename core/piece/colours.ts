import type { Piece } from './piece';
import { ownersOf } from './walk';

/** The still colours of a piece as '#rrggbb' in lower case, the most frequent first, each once. */
export function coloursIn(piece: Piece): string[] {
  const count = new Map<string, number>();
  for (const { params, item } of ownersOf(piece))
    for (const [name, param] of Object.entries(params)) {
      const value = item.values[name];
      if (param.type !== 'colour' || typeof value !== 'string') continue;
      const hex = value.toLowerCase();
      count.set(hex, (count.get(hex) ?? 0) + 1);
    }
  return [...count].sort(([, a], [, b]) => b - a).map(([hex]) => hex);
}
