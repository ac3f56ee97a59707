import { boundsOf } from '@maypole/core/shape/measure';
import type { DrawablePart, ViewFrame } from './frame';

/** Bounding sphere of the picture: shadows reach this far. */
export interface Extent {
  readonly centre: readonly [number, number, number];
  readonly radius: number;
}

type Box = readonly [number, number, number, number, number, number];

/** The empty box: a union with it is the other box. */
const NOWHERE: Box = [Infinity, Infinity, Infinity, -Infinity, -Infinity, -Infinity];

const known = new WeakMap<object, Box | null>();

function once(key: object, make: () => Box | null): Box | null {
  let box = known.get(key);
  if (box === undefined) known.set(key, (box = make()));
  return box;
}

/** Bounds of a part as it is drawn: of its vertices, and around each instance. */
function boxOf({ positions, instances }: DrawablePart): Box | null {
  const own = once(positions, () => {
    const b = boundsOf(positions);
    return b && [...(b.min as [number, number, number]), ...(b.max as [number, number, number])];
  });
  if (!own || !instances) return own;
  return once(instances.matrices, () => {
    const m = instances.matrices;
    const far = (k: number) => Math.max(Math.abs(own[k]), Math.abs(own[k + 3]));
    const reach = Math.hypot(far(0), far(1), far(2));
    // Called for every frame of playback, so it allocates nothing per copy.
    const column = (i: number) => Math.sqrt(m[i] * m[i] + m[i + 1] * m[i + 1] + m[i + 2] * m[i + 2]);
    const out: [number, number, number, number, number, number] = [...NOWHERE];
    for (let i = 0; i < m.length; i += 16) {
      const size = Math.max(column(i), column(i + 4), column(i + 8)) * reach;
      for (let k = 0; k < 3; k++) {
        out[k] = Math.min(out[k], m[i + 12 + k] - size);
        out[k + 3] = Math.max(out[k + 3], m[i + 12 + k] + size);
      }
    }
    return m.length > 0 ? out : null;
  });
}

/** Whether a point lies in the bounds of a part; for copies, of all of them. */
export function isWithin(place: readonly number[], part: DrawablePart): boolean {
  const box = boxOf(part);
  return box !== null && [0, 1, 2].every((k) => place[k] > box[k] && place[k] < box[k + 3]);
}

/** Bounding sphere of a frame. */
export function extentOf(frame: Pick<ViewFrame, 'ribbons'>): Extent {
  const out = [...NOWHERE];
  for (const { shape } of frame.ribbons)
    for (const part of shape.parts) {
      const box = boxOf(part);
      if (!box) continue;
      for (let k = 0; k < 3; k++) {
        out[k] = Math.min(out[k], box[k]);
        out[k + 3] = Math.max(out[k + 3], box[k + 3]);
      }
    }
  if (out[0] > out[3]) return { centre: [0, 0, 0], radius: 1 };
  const middle = (k: number) => (out[k] + out[k + 3]) / 2;
  return {
    centre: [middle(0), middle(1), middle(2)],
    radius: Math.hypot(out[3] - out[0], out[4] - out[1], out[5] - out[2]) / 2,
  };
}
