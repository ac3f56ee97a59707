import { renaming } from '../piece/copy';
import type { FinishDoc, Item, Piece, RibbonDoc } from '../piece/piece';
import { mapOwners } from '../piece/walk';
import { sceneListNames } from '../scene/index';

/**
 * The second of two pieces with similar things renamed to the identifiers of the first, so that pieces without a common
 * history can be compared. Equal identifiers stay; then ribbons are matched by name, then by form, in order, and within
 * them, as in the scene, items by kind.
 *
 * @example
 * differences(a, liken(a, b)); // "Twist angle 40° → 90°" in place of everything removed, and everything added
 */
export function liken(a: Piece, b: Piece): Piece {
  const ids = new Map<string, string>();
  const items = (x: readonly Item[], y: readonly Item[]) => pair(x, y, ids, (i) => i.kind);
  pair(a.ribbons, b.ribbons, ids, (r) => `${r.name}/${formOf(r)}`);
  pair(a.ribbons, b.ribbons, ids, formOf);
  pair(a.ribbons, b.ribbons, ids, (r) => r.name);
  for (const other of b.ribbons) {
    const ribbon = a.ribbons.find((r) => r.id === (ids.get(other.id) ?? other.id));
    if (!ribbon) continue;
    items(ribbon.steps, other.steps);
    for (const finish of other.finishes) {
      const same = ribbon.finishes.find((f) => f.of === finish.of);
      if (same) parts(same, finish, ids);
    }
  }
  for (const list of sceneListNames) items(a.scene[list], b.scene[list]);
  items([a.render], [b.render]);
  items(a.outputs, b.outputs);
  if (ids.size === 0) return b;
  const values = renaming(ids);
  const called = <T extends { readonly id: string }>(x: T): T => ({ ...x, id: ids.get(x.id) ?? x.id });
  const piece = mapOwners(b, ({ item, params }) => called({ ...item, values: values(item.values, params) }));
  return { ...piece, ribbons: piece.ribbons.map(called) };
}

function parts(a: FinishDoc, b: FinishDoc, ids: Map<string, string>): void {
  pair(a.parts, b.parts, ids, (p) => p.kind);
  for (const part of b.parts) {
    const same = a.parts.find((p) => p.id === (ids.get(part.id) ?? part.id));
    if (same) pair(same.patterns ?? [], part.patterns ?? [], ids, (p) => `${p.of}/${p.kind}`);
  }
}

const formOf = (ribbon: RibbonDoc) => ribbon.steps[0]?.kind ?? '';

/** Matches unmatched things of two lists that are similar, in order. */
function pair<T extends { readonly id: string }>(
  a: readonly T[],
  b: readonly T[],
  ids: Map<string, string>,
  alike: (x: T) => string,
): void {
  const taken = new Set(b.map((x) => ids.get(x.id) ?? x.id));
  const free = a.filter((x) => !taken.has(x.id));
  const own = new Set(a.map((x) => x.id));
  for (const x of b) {
    if (own.has(ids.get(x.id) ?? x.id)) continue;
    const at = free.findIndex((y) => alike(y) === alike(x));
    if (at >= 0) ids.set(x.id, free.splice(at, 1)[0].id);
  }
}
