import type { KeyDoc } from '@maypole/core/time/keys/key';
import { xOf, yOf, type CurveBox } from './curve-geometry';

export type Edge = 'left' | 'right' | 'top' | 'bottom';

/** Bounds of the chosen keys in time and value. */
export interface Bounds {
  readonly t0: number;
  readonly t1: number;
  readonly v0: number;
  readonly v1: number;
}

export function boundsOfKeys(keys: readonly KeyDoc[], chosen: readonly number[]): Bounds | null {
  if (chosen.length < 2) return null;
  const some = chosen.map((i) => keys[i]).filter(Boolean);
  return {
    t0: Math.min(...some.map((k) => k.at)),
    t1: Math.max(...some.map((k) => k.at)),
    v0: Math.min(...some.map((k) => k.value)),
    v1: Math.max(...some.map((k) => k.value)),
  };
}

const REACH = 6;

export function corners(b: Bounds, box: CurveBox) {
  return {
    left: xOf(box, b.t0) - 10,
    right: xOf(box, b.t1) + 10,
    top: yOf(box, b.v1) - 10,
    bottom: yOf(box, b.v0) + 10,
  };
}

export function edgeAt(b: Bounds, box: CurveBox, x: number, y: number): Edge | null {
  const { left, right, top, bottom } = corners(b, box);
  const within = (v: number, a: number, c: number) => v >= a - REACH && v <= c + REACH;
  if (b.t1 > b.t0 && within(y, top, bottom)) {
    if (Math.abs(x - left) < REACH) return 'left';
    if (Math.abs(x - right) < REACH) return 'right';
  }
  if (b.v1 > b.v0 && within(x, left, right)) {
    if (Math.abs(y - top) < REACH) return 'top';
    if (Math.abs(y - bottom) < REACH) return 'bottom';
  }
  return null;
}

/** Maps the dragged edge, keeping the opposite one in place. */
export function stretch(
  b: Bounds,
  edge: Edge,
  t: number,
  v: number,
): { about: { at: number; value: number }; by: { at: number; value: number } } {
  const mid = { at: b.t0, value: b.v0 };
  const [run, rise] = [b.t1 - b.t0, b.v1 - b.v0];
  // The pointer may be in a neighbouring loop; its nearest equivalent counts.
  switch (edge) {
    case 'right':
      return { about: mid, by: { at: Math.max(0.01, (t - b.t0) / run), value: 1 } };
    case 'left':
      return { about: { ...mid, at: b.t1 }, by: { at: Math.max(0.01, (b.t1 - t) / run), value: 1 } };
    case 'top':
      return { about: mid, by: { at: 1, value: (v - b.v0) / rise } };
    case 'bottom':
      return { about: { ...mid, value: b.v1 }, by: { at: 1, value: (b.v1 - v) / rise } };
  }
}
