import { boundsOf } from '@maypole/core/shape/measure';
import type { DrawablePart, ViewFrame } from './frame';

/** Where everything that stands in the picture is: shadows reach as far as this. */
export interface Extent {
  readonly centre: readonly [number, number, number];
  readonly radius: number;
}

type Box = readonly [number, number, number, number, number, number];

/** The box of nothing: whatever is put into it makes it its own. */
const NOWHERE: Box = [Infinity, Infinity, Infinity, -Infinity, -Infinity, -Infinity];

const known = new WeakMap<object, Box | null>();

function once(key: object, make: () => Box | null): Box | null {
  let box = known.get(key);
  if (box === undefined) known.set(key, (box = make()));
  return box;
}

/** The box of a part as it is drawn: its points, and about every place where it stands as far as they reach. */
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
    // Gone through with every frame that plays, so nothing is made for a copy.
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

/** Whether a place lies in the box of a part; that of copies is about all of them. */
export function isWithin(place: readonly number[], part: DrawablePart): boolean {
  const box = boxOf(part);
  return box !== null && [0, 1, 2].every((k) => place[k] > box[k] && place[k] < box[k + 3]);
}

/** Middle and radius of all that stands in a frame. */
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
