import type { NumberParam, StoredValue, VectorParam } from '@maypole/core/declare/params';
import { valueAt, type Address } from '@maypole/core/piece/addresses';
import { setPairedValue } from '@maypole/core/piece/pair';
import { saysMore, typedValue } from '@maypole/core/say/typed-value';
import { useEditor } from '../state/store';

let typings = 0;

/**
 * Takes a motion or several numbers that are typed into a field, for all places that are edited together.
 *
 * @returns what is wrong with it; null if it was taken; undefined if it is no more than a number
 */
export function sayTyped(
  text: string,
  label: string,
  param: NumberParam | VectorParam,
  addresses: readonly Address[],
): string | null | undefined {
  if (!saysMore(text, param.type === 'vector')) return undefined;
  const { piece, edit } = useEditor.getState();
  const changes: { readonly address: Address; readonly value: StoredValue }[] = [];
  for (const { owner, param: name, axis } of addresses) {
    const address: Address = { owner, param: name };
    const stored = valueAt(piece, address);
    if (stored === undefined) continue;
    const read = typedValue(text, { param, stored, axis, loop: piece.loop });
    if ('why' in read) return read.why;
    changes.push({ address, value: read.value });
  }
  edit(label, (p) => changes.reduce((q, c) => setPairedValue(q, c.address, c.value), p), `typed-words-${++typings}`);
  return null;
}
