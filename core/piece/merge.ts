import { valueWords } from '../time/value-words';
import type { Param, StoredValue } from '../declare/params';
import { isKeyed, isRecord, isValue, keyAt, same, type Path } from './paths';
import type { Piece } from './piece';
import { readPieceValue } from './read';
import { ownersOf } from './walk';

/** Which side wins where both changed the same thing. */
export type Side = 'mine' | 'theirs';

/** Something that both sides changed differently. */
export interface MergeConflict {
  /** Name of the ribbon, or of the place. */
  readonly place: string;
  /** "Twist angle". */
  readonly what: string;
  readonly mine: string;
  readonly theirs: string;
}

export type Merged =
  | { readonly ok: true; readonly piece: Piece; readonly conflicts: readonly MergeConflict[] }
  /** The result is no valid document: the reason, in a sentence. */
  | { readonly ok: false; readonly message: string };

type Json = unknown;
interface Clash {
  readonly path: Path;
  readonly mine: Json;
  readonly theirs: Json;
}

/**
 * Three-way merge of two versions of a piece, by address: what only one side changed is taken from that side. Items and
 * ribbons are matched by identifier. A motion is one value; a vector is three. If both changed the same thing, `prefer`
 * wins and the conflict is listed; what one side removed and the other changed stays.
 *
 * Invariants: mine = base gives theirs, theirs = base gives mine, and mine = theirs gives that.
 */
export function mergePieces(base: Piece, mine: Piece, theirs: Piece, prefer: Side = 'mine'): Merged {
  const clashes: Clash[] = [];
  const merged = merge(base, mine, theirs, [], prefer, clashes);
  const read = readPieceValue(merged);
  if (!read.ok) return { ok: false, message: read.message };
  return { ok: true, piece: read.piece, conflicts: clashes.map((c) => inWords(c, mine, theirs)) };
}

function merge(base: Json, mine: Json, theirs: Json, path: Path, prefer: Side, clashes: Clash[]): Json {
  if (same(mine, theirs) || same(base, theirs)) return mine;
  if (same(base, mine)) return theirs;
  const key = keyAt(path);
  if (!isValue(path)) {
    if (isRecord(mine) && isRecord(theirs) && isRecord(base))
      return mergeRecords(base, mine, theirs, path, prefer, clashes);
    if (isKeyed(mine, key) && isKeyed(theirs, key) && isKeyed(base ?? [], key))
      return mergeLists((base ?? []) as Record<string, Json>[], mine, theirs, path, prefer, clashes);
    if (path.at(-1) === 'apart') return [...new Set([...((mine ?? []) as Json[]), ...((theirs ?? []) as Json[])])];
  } else if ([base, mine, theirs].every(isVector)) {
    const [b, m, t] = [base, mine, theirs] as Json[][];
    return m.map((x, axis) => merge(b[axis], x, t[axis], [...path, axis], prefer, clashes));
  }
  clashes.push({ path, mine, theirs });
  return prefer === 'mine' ? mine : theirs;
}

/** Three numbers, or their motions. */
const isVector = (x: Json) =>
  Array.isArray(x) && x.length === 3 && x.every((e) => typeof e === 'number' || (isRecord(e) && 'motion' in e));

function mergeRecords(
  base: Record<string, Json>,
  mine: Record<string, Json>,
  theirs: Record<string, Json>,
  path: Path,
  prefer: Side,
  clashes: Clash[],
): Json {
  // Another kind has other values: one side's, whole.
  if (mine.kind !== theirs.kind && mine.kind !== base.kind && theirs.kind !== base.kind) {
    clashes.push({ path, mine, theirs });
    return prefer === 'mine' ? mine : theirs;
  }
  if (mine.kind !== base.kind) return mine;
  if (theirs.kind !== base.kind) return theirs;
  const out: Record<string, Json> = {};
  for (const name of new Set([...Object.keys(mine), ...Object.keys(theirs)])) {
    const value = merge(base[name], mine[name], theirs[name], [...path, name], prefer, clashes);
    if (value !== undefined) out[name] = value;
  }
  return out;
}

function mergeLists(
  base: readonly Record<string, Json>[],
  mine: readonly Record<string, Json>[],
  theirs: readonly Record<string, Json>[],
  path: Path,
  prefer: Side,
  clashes: Clash[],
): Json {
  const name = keyAt(path);
  const key = (x: Record<string, Json>) => x[name] as string;
  const [b, m, t] = [base, mine, theirs].map((list) => new Map(list.map((x) => [key(x), x])));
  const order = orderOf(base.map(key), mine.map(key), theirs.map(key));
  return order.flatMap((id) => {
    const [old, own, other] = [b.get(id), m.get(id), t.get(id)];
    const at = [...path, id];
    if (own && other) {
      // A finish that both added: their parts are combined, with one of the two identifiers.
      const before = old ?? { ...own, parts: [] };
      return [merge(before, own, old ? other : { ...other, id: own.id }, at, prefer, clashes)];
    }
    const left = (own ?? other)!;
    // Added by one side.
    if (!old) return [left];
    // Removed by the other side, which did not see the change.
    if (same(old, left)) return [];
    clashes.push({ path: at, mine: own, theirs: other });
    return [left];
  });
}

/** Merged order: that of the side which changed it, with the other's additions after their predecessors there. */
function orderOf(base: readonly string[], mine: readonly string[], theirs: readonly string[]): string[] {
  const common = (list: readonly string[]) =>
    list.filter((k) => base.includes(k) && mine.includes(k) && theirs.includes(k));
  const [b, m] = [common(base).join('\n'), common(mine).join('\n')];
  const [first, second] = m === b ? [theirs, mine] : [mine, theirs];
  const out = [...first];
  second.forEach((k, i) => {
    if (out.includes(k)) return;
    const before = second.slice(0, i).findLast((x) => out.includes(x));
    out.splice(before === undefined ? 0 : out.indexOf(before) + 1, 0, k);
  });
  return out;
}

const SCENE_WORDS: Readonly<Record<string, string>> = { name: 'Name', loop: 'Loop', format: 'Format' };

/** A conflict as the screen words it. */
function inWords({ path, mine, theirs }: Clash, one: Piece, other: Piece): MergeConflict {
  const owned = [...ownersOf(one), ...ownersOf(other)].find((o) => path.includes(o.item.id));
  if (owned) {
    const at = path.indexOf('values');
    const name = at < 0 ? undefined : (path[at + 1] as string);
    const param = name === undefined ? undefined : owned.params[name];
    const axis = at >= 0 && typeof path[at + 2] === 'number' ? ` ${'xyz'[path[at + 2] as number]}` : '';
    return {
      place: owned.place,
      what: param ? `${owned.title} ${param.title.toLowerCase()}${axis}` : owned.title,
      mine: said(mine, param, axis !== ''),
      theirs: said(theirs, param, axis !== ''),
    };
  }
  const ribbon = [...one.ribbons, ...other.ribbons].find((r) => path.includes(r.id));
  const field = String(path.at(-1));
  return {
    place: ribbon?.name ?? 'Piece',
    what: ribbon && field === ribbon.id ? 'Ribbon' : (SCENE_WORDS[String(path[0])] ?? field),
    mine: said(mine, undefined, false),
    theirs: said(theirs, undefined, false),
  };
}

function said(x: Json, param: Param | undefined, axis: boolean): string {
  if (x === undefined) return param ? 'as declared' : 'removed';
  if (param && !(axis && param.type === 'vector')) return valueWords(x as StoredValue, param);
  if (isRecord(x)) return 'motion' in x ? String(x.motion) : 'changed';
  return Array.isArray(x) ? 'changed' : String(x);
}
