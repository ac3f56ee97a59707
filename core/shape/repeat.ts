import { carried, repeatedCurves } from './attributes';
import type { Connectivity } from './mesh';

const known = new WeakMap<Connectivity, Map<string, Connectivity>>();

/**
 * The same connectivity several times, computed once for each count. Copy i has the vertices from i · vertexCount on.
 *
 * @param mirrored reverses the faces of every other copy
 */
export function repeated(c: Connectivity, times: number, mirrored = false): Connectivity {
  if (times === 1) return c;
  let own = known.get(c);
  if (!own) known.set(c, (own = new Map()));
  const key = `${times}/${mirrored}`;
  let out = own.get(key);
  if (!out) own.set(key, (out = make(c, times, mirrored)));
  return out;
}

function make(c: Connectivity, times: number, mirrored: boolean): Connectivity {
  const faces = c.faceStart.length - 1;
  const count = c.corners.length;
  const faceStart = new Uint32Array(faces * times + 1);
  const corners = new Uint32Array(count * times);
  for (let b = 0; b < times; b++) {
    const turn = mirrored && b % 2 === 1;
    for (let f = 0; f < faces; f++) {
      faceStart[b * faces + f] = c.faceStart[f] + b * count;
      const [from, to] = [c.faceStart[f], c.faceStart[f + 1]];
      for (let k = from; k < to; k++)
        corners[b * count + (turn ? from + to - 1 - k : k)] = c.corners[k] + b * c.vertexCount;
    }
  }
  faceStart[faces * times] = count * times;
  const cornerFrom = new Uint32Array(count * times);
  for (let b = 0; b < times; b++)
    for (let f = 0; f < faces; f++) {
      const [from, to] = [c.faceStart[f], c.faceStart[f + 1]];
      for (let k = from; k < to; k++) cornerFrom[b * count + k] = mirrored && b % 2 === 1 ? from + to - 1 - k : k;
    }
  const faceFrom = Uint32Array.from({ length: faces * times }, (_, i) => i % faces);
  return carried(
    c,
    {
      vertexCount: c.vertexCount * times,
      faceStart,
      corners,
      ...(c.curves ? { curves: repeatedCurves(c.curves, times, c.vertexCount) } : {}),
    },
    faceFrom,
    cornerFrom,
  );
}

/** Positions of several copies; `place` writes copy i from the original. */
export function copies(
  positions: Float32Array,
  times: number,
  place: (copy: number, to: Float32Array) => void,
): Float32Array {
  const out = new Float32Array(positions.length * times);
  for (let i = 0; i < times; i++) place(i, out.subarray(i * positions.length, (i + 1) * positions.length));
  return out;
}
