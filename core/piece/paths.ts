import { sceneLists, type SceneList } from '../scene/index';
import type { Piece } from './piece';

/** A way into a document: names in records, identities in lists. */
export type Path = readonly (string | number)[];

export type JsonRecord = Record<string, unknown>;

/** Stands in a path for the order of a list. */
export const ORDER = '#order';

export const isRecord = (x: unknown): x is JsonRecord => typeof x === 'object' && x !== null && !Array.isArray(x);

export const same = (a: unknown, b: unknown): boolean => a === b || JSON.stringify(a) === JSON.stringify(b);

/** Identity within a list: finishes by face kind, of which each ribbon has one; everything else by identifier. */
export const keyAt = (path: Path): 'of' | 'id' => (path.at(-1) === 'finishes' ? 'of' : 'id');

export const isKeyed = (x: unknown, key: string): x is JsonRecord[] =>
  Array.isArray(x) && x.every((e) => isRecord(e) && typeof e[key] === 'string');

/** Whether a path is that of a value, and not of its container. */
export const isValue = (path: Path): boolean => path.at(-2) === 'values';

/** What differs at one place; undefined where nothing stands. */
export interface Change {
  readonly path: Path;
  readonly from: unknown;
  readonly to: unknown;
}

/** Whether what stands at a path is compared and replaced as one. */
function isWhole(path: Path, a: unknown, b: unknown): boolean {
  if (isValue(path) || path[0] === 'loop' || path[0] === 'format') return true;
  // A scene has one backdrop: another one takes its place.
  if (path.length === 2 && path[0] === 'scene' && sceneLists[path[1] as SceneList].most === 1)
    return isKeyed(a, 'id') && isKeyed(b, 'id') && a[0]?.id !== b[0]?.id;
  return isRecord(a) && isRecord(b) && a.kind !== b.kind;
}

/** Every difference between two documents. Taking each from `b` makes `b` of `a`: see `withChange`. */
export function changesBetween(a: Piece, b: Piece): Change[] {
  const out: Change[] = [];
  compare(a, b, [], out);
  return out;
}

function compare(a: unknown, b: unknown, path: Path, out: Change[]): void {
  if (same(a, b)) return;
  if (!isWhole(path, a, b)) {
    if (isRecord(a) && isRecord(b)) return compareRecords(a, b, path, out);
    const key = keyAt(path);
    // No patterns are the same as none yet.
    const [x, y] = path.at(-1) === 'patterns' ? [a ?? [], b ?? []] : [a, b];
    if (isKeyed(x, key) && isKeyed(y, key)) return compareLists(x, y, path, out);
  }
  out.push({ path, from: a, to: b });
}

function compareRecords(a: JsonRecord, b: JsonRecord, path: Path, out: Change[]): void {
  // Finishes are told apart by their faces; their identifiers say nothing.
  const isFinish = path.at(-2) === 'finishes';
  for (const name of new Set([...Object.keys(a), ...Object.keys(b)]))
    if (!(isFinish && name === 'id')) compare(a[name], b[name], [...path, name], out);
}

function compareLists(a: readonly JsonRecord[], b: readonly JsonRecord[], path: Path, out: Change[]): void {
  const key = keyAt(path);
  const of = (list: readonly JsonRecord[]) => new Map(list.map((x) => [x[key] as string, x]));
  const [before, after] = [of(a), of(b)];
  for (const [id, item] of after) compare(before.get(id), item, [...path, id], out);
  for (const [id, item] of before) if (!after.has(id)) out.push({ path: [...path, id], from: item, to: undefined });
  const common = (list: ReadonlyMap<string, JsonRecord>, other: ReadonlyMap<string, JsonRecord>) =>
    [...list.keys()].filter((id) => other.has(id));
  const [was, is] = [common(before, after), common(after, before)];
  if (!same(was, is)) out.push({ path: [...path, ORDER], from: was, to: is });
}

/** A piece with what stands at a path as in another one; unchanged where neither has the way there. */
export function withChange(piece: Piece, other: Piece, path: Path): Piece {
  return put(piece, other, path, []) as Piece;
}

function put(here: unknown, there: unknown, rest: Path, done: Path): unknown {
  if (rest.length === 0) return there;
  const [next, ...after] = rest;
  const path = [...done, next];
  const key = keyAt(done);
  if (next === ORDER) return ordered(here as readonly JsonRecord[], there as readonly JsonRecord[], key);
  if (isRecord(here) && isRecord(there)) {
    const value = put(here[next], there[next], after, path);
    if (value === here[next]) return here;
    const { [next]: _, ...others } = here;
    return value === undefined ? others : { ...here, [next]: value };
  }
  const [list, old] = [here ?? [], there ?? []];
  if (!isKeyed(list, key) || !isKeyed(old, key)) return here;
  const [own, wanted] = [list, old].map((l) => l.find((x) => x[key] === next));
  const value = put(own, wanted, after, path) as JsonRecord | undefined;
  if (value === own) return here;
  if (!value) return list.filter((x) => x !== own);
  if (own) return list.map((x) => (x === own ? value : x));
  // It comes back behind what stood before it there.
  const before = old.slice(0, old.indexOf(wanted!)).findLast((x) => list.some((y) => y[key] === x[key]));
  const at = before ? list.findIndex((y) => y[key] === before[key]) + 1 : 0;
  return [...list.slice(0, at), value, ...list.slice(at)];
}

/** A list in the order of another; what that one has not got stays behind what it follows. */
function ordered(list: readonly JsonRecord[], other: readonly JsonRecord[], key: string): readonly JsonRecord[] {
  const rank = new Map(other.map((x, i) => [x[key], i]));
  const known = list.filter((x) => rank.has(x[key])).sort((a, b) => rank.get(a[key])! - rank.get(b[key])!);
  let next = 0;
  return list.map((x) => (rank.has(x[key]) ? known[next++] : x));
}
