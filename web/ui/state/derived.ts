import { addressKey, ownerKey, valuesOf, type ColourPlace, type NumberPlace } from '@maypole/core/piece/addresses';
import { sceneAt, type SceneAt } from '@maypole/core/evaluate/picture-at';
import { linkPiece } from '@maypole/core/piece/link';
import type { Piece } from '@maypole/core/piece/piece';
import { selfMovingOf, type SelfMoving } from '@maypole/core/piece/self-moving';
import { judge, type Verdict } from '@maypole/core/seam/check';
import type { Finding } from '@maypole/core/seam/finding';
import { isMoving } from '@maypole/core/time/value';
import type { SeamMeasure } from '@/engine/evaluate/seam-watch';

export type MovingPlace = NumberPlace | ColourPlace;

/** Memoises a derived value per object, shared by all components. */
function once<K extends object, T>(make: (from: K) => T): (from: K) => T {
  const known = new WeakMap<K, T>();
  return (from) => {
    let value = known.get(from);
    if (value === undefined) known.set(from, (value = make(from)));
    return value;
  };
}

let sceneKnown: { readonly piece: Piece; readonly frame: number; readonly scene: SceneAt } | null = null;

/** The scene at the playhead, computed once. */
export function sceneNow({ piece, frame }: { readonly piece: Piece; readonly frame: number }): SceneAt {
  if (sceneKnown?.piece !== piece || sceneKnown.frame !== frame)
    sceneKnown = { piece, frame, scene: sceneAt(piece, frame) };
  return sceneKnown.scene;
}

/** Proof and measurement combined, as far as known. */
export const verdictOf: (measure: SeamMeasure) => Verdict = once((m) => {
  const verdict = judge(m.proof ?? { findings: [] }, m.ribbons, m.state !== 'measuring');
  return {
    ...verdict,
    findings: verdict.findings.map((f) =>
      m.symmetry[f.key]?.length ? { ...f, repairs: [...m.symmetry[f.key], ...f.repairs] } : f,
    ),
  };
});

let lastSelf: readonly SelfMoving[] = [];

/** What moves by itself; the same list while unchanged. */
export const selfMoving: (piece: Piece) => readonly SelfMoving[] = once((piece: Piece) => {
  const now = selfMovingOf(piece);
  if (JSON.stringify(now) !== JSON.stringify(lastSelf)) lastSelf = now;
  return lastSelf;
});

let last: readonly MovingPlace[] = [];

/** Every moving value, prepared. The same list while none has changed, so that other edits do not redraw lanes. */
export const movingOf: (piece: Piece) => readonly MovingPlace[] = once((piece: Piece) => {
  const now = valuesOf(linkPiece(piece)).filter((n) => isMoving(n.value));
  const before = new Map(last.map((n) => [addressKey(n.address), n]));
  const kept = now.map((n) => {
    const old = before.get(addressKey(n.address));
    return old &&
      old.value === n.value &&
      old.title === n.title &&
      old.of === n.of &&
      old.place === n.place &&
      old.colour === n.colour &&
      old.param === n.param
      ? old
      : n;
  });
  if (kept.length === last.length && kept.every((n, i) => n === last[i])) return last;
  last = kept;
  return kept;
});

/** What closes, besides the findings, in a sentence. */
export function whatCloses(piece: Piece, findings: readonly Finding[]): string {
  const moving = movingOf(piece);
  const itself = selfMoving(piece);
  if (moving.length === 0 && itself.length === 0) return 'Nothing moves.';
  const found = findings.filter((f) => f.kind !== 'lost');
  const keys = new Set(found.map((f) => f.key));
  // A finding of a step concerns what moves there by itself, unless it names a value with a motion.
  const owners = new Set(found.filter((f) => !isMotion(moving, f.key)).map((f) => ownerKey(f.owner)));
  const values = moving.filter((m) => !keys.has(addressKey(m.address))).length;
  const things = itself.filter((s) => !owners.has(ownerKey(s.owner))).length;
  if (values === 0 && things === 0) return 'Nothing else moves.';
  const other = found.length > 0 ? 'other ' : '';
  const one = `${values} ${other}moving ${values === 1 ? 'value closes' : 'values close'} exactly`;
  const two = `${things} ${other}${things === 1 ? 'thing that moves by itself closes' : 'things that move by themselves close'}`;
  if (things === 0) return `${one}.`;
  return values === 0 ? `${two}.` : `${one}, and ${two.replace('other ', '')}, too.`;
}

const isMotion = (moving: readonly MovingPlace[], key: string) => moving.some((m) => addressKey(m.address) === key);
