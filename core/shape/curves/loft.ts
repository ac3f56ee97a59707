import { ConnectivityBuilder, connectivityStore } from '../builder';
import { FINISH, type Mesh } from '../mesh';
import { resampled } from './frames';
import { capFaces, flatProfile } from './profile';

export interface LoftOptions {
  readonly closed: boolean;
  readonly around: number;
  readonly rows: number;
  readonly smooth: boolean;
  readonly joined: boolean;
  readonly ends: boolean;
}

const store = connectivityStore(24);

/** Shifts and, if necessary, reverses the points of `next` so that they lie nearest to those of `before`. */
function aligned(before: Float64Array, next: Float64Array, closed: boolean): Float64Array {
  const n = before.length / 3;
  const middle = (p: Float64Array) => [0, 1, 2].map((k) => p.reduce((s, x, i) => (i % 3 === k ? s + x : s), 0) / n);
  const [m, w] = [middle(before), middle(next)];
  let best = { cost: Infinity, shift: 0, step: 1 };
  for (const step of [1, -1])
    for (let shift = 0; shift < (closed ? n : 1); shift++) {
      const first = closed ? shift : step === 1 ? 0 : n - 1;
      let cost = 0;
      for (let i = 0; i < n && cost < best.cost; i++) {
        const j = (((first + step * i) % n) + n) % n;
        for (let k = 0; k < 3; k++) cost += (before[3 * i + k] - m[k] - next[3 * j + k] + w[k]) ** 2;
      }
      if (cost < best.cost - 1e-9) best = { cost, shift: first, step };
    }
  const out = new Float64Array(next.length);
  for (let i = 0; i < n; i++) {
    const j = (((best.shift + best.step * i) % n) + n) % n;
    for (let k = 0; k < 3; k++) out[3 * i + k] = next[3 * j + k];
  }
  return out;
}

/**
 * A surface through sections, 3 numbers a point each. Smooth ones follow Catmull and Rom's spline
 * (“A class of local interpolating splines”, 1974) from section to section.
 */
export function lofted(sections: readonly Float64Array[], o: LoftOptions): Mesh {
  const count = o.closed ? o.around : o.around + 1;
  const rings: Float64Array[] = [];
  for (const s of sections) {
    const even = resampled(s, o.closed, count);
    rings.push(rings.length === 0 ? even : aligned(rings[rings.length - 1], even, o.closed));
  }
  const n = rings.length;
  const spans = o.joined ? n : n - 1;
  const at = (i: number) => rings[o.joined ? ((i % n) + n) % n : Math.max(0, Math.min(n - 1, i))];
  const made = o.joined ? spans * o.rows : spans * o.rows + 1;
  const positions = new Float32Array(3 * count * made);
  for (let r = 0; r < made; r++) {
    const i = Math.min(spans - 1, Math.floor(r / o.rows));
    const x = r / o.rows - i;
    const [a, b, c, d] = [at(i - 1), at(i), at(i + 1), at(i + 2)];
    for (let k = 0; k < 3 * count; k++) {
      // End slopes are those of the straight segment.
      const [m0, m1] = [(c[k] - a[k]) / (a === b ? 1 : 2), (d[k] - b[k]) / (c === d ? 1 : 2)];
      const rise = c[k] - b[k];
      positions[3 * count * r + k] =
        b[k] + x * (o.smooth ? m0 + x * (3 * rise - 2 * m0 - m1 + x * (m0 + m1 - 2 * rise)) : rise);
    }
  }
  // Outwards is where a point of the first row lies from its centre, seen along the loft.
  const flip = turnsInwards(positions, count, made);
  const caps =
    o.closed && o.ends && !o.joined
      ? [0, made - 1].map((r) => closing(positions.subarray(3 * count * r, 3 * count * (r + 1))))
      : [];
  const connectivity = store(`${count}/${made}/${o.closed}/${o.joined}/${o.ends}/${flip}/${caps.join('/')}`, () => {
    const faces = new ConnectivityBuilder();
    const put = (corners: number[], group: number, uv: number[]) => {
      if (flip) faces.face([...corners].reverse(), group, FINISH.main, pairs(uv).reverse().flat());
      else faces.face(corners, group, FINISH.main, uv);
    };
    for (let r = 0; r < (o.joined ? made : made - 1); r++)
      for (let j = 0; j < (o.closed ? count : count - 1); j++) {
        const [p, q, k] = [r * count, ((r + 1) % made) * count, (j + 1) % count];
        const [u0, u1, v0, v1] = [j / o.around, (j + 1) / o.around, r / made, (r + 1) / made];
        put([p + j, p + k, q + k, q + j], 0, [u0, v0, u1, v0, u1, v1, u0, v1]);
      }
    if (o.closed && o.ends && !o.joined) {
      const uv = (j: number) => [
        0.5 + 0.5 * Math.cos((2 * Math.PI * j) / count),
        0.5 + 0.5 * Math.sin((2 * Math.PI * j) / count),
      ];
      for (const face of caps[0]) put([...face].reverse(), 1, [...face].reverse().flatMap(uv));
      for (const face of caps[1])
        put(
          face.map((j) => (made - 1) * count + j),
          2,
          face.flatMap(uv),
        );
    }
    return faces.finish(count * made);
  });
  return { connectivity, positions };
}

/** Faces that cap an end, in the order of its points. */
function closing(ring: Float32Array): number[][] {
  const flat = flatProfile(ring);
  // Flattening may have reversed it to counter-clockwise.
  const last = ring.length / 3 - 1;
  const turned = flat[0][0] !== flatProfile(ring, true)[0][0] || flat[0][1] !== flatProfile(ring, true)[0][1];
  return capFaces(flat).map((f) => (turned ? f.map((i) => last - i).reverse() : f));
}

function pairs(list: readonly number[]): number[][] {
  return Array.from({ length: list.length / 2 }, (_, i) => [list[2 * i], list[2 * i + 1]]);
}

function turnsInwards(p: Float32Array, count: number, rows: number): boolean {
  // The signed volume between the rows and the origin of their centre.
  let sum = 0;
  const m = [0, 1, 2].map((k) => {
    let s = 0;
    for (let i = k; i < p.length; i += 3) s += p[i];
    return s / (p.length / 3);
  });
  const at = (i: number) => [p[3 * i] - m[0], p[3 * i + 1] - m[1], p[3 * i + 2] - m[2]];
  for (let r = 0; r + 1 < rows; r++)
    for (let j = 0; j < count; j++) {
      const [a, b, c] = [at(r * count + j), at(r * count + ((j + 1) % count)), at((r + 1) * count + j)];
      sum +=
        a[0] * (b[1] * c[2] - b[2] * c[1]) + a[1] * (b[2] * c[0] - b[0] * c[2]) + a[2] * (b[0] * c[1] - b[1] * c[0]);
    }
  return sum < 0;
}
