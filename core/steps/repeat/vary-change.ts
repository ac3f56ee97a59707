import { withCopies } from '../../copies/copies';
import { filtered } from '../../copies/places';
import type { Copies, Mesh } from '../../shape/mesh';
import { blend } from '../../time/colours/space';
import { formatCount, StepProblem, type StepContext } from '../step';
import type { Region } from '../deform/region';
import type { NoiseValues } from '../../noise/noise-params';
import { followed, type Lag } from './lagging';
import type { What } from './vary';
import { strengthsOf, weightsOf, type DealtBy } from './vary-weights';

type VaryValues = DealtBy & Lag & Region & Omit<NoiseValues, 'space'> & { readonly what: What; readonly own: boolean; readonly lateFrom: number; readonly lateTo: number; readonly shareSoft: number; readonly colourFrom: string; readonly colourTo: string };

/** Which values a change is between, how many numbers each has, and what stands for no change. */
const BETWEEN: Partial<Record<What, { names: readonly [string, string] | readonly [string]; width: number; none: number; cyclic: number }>> = {
  shift: { names: ['shiftFrom', 'shiftTo'], width: 3, none: 0, cyclic: 0 },
  turn: { names: ['turnFrom', 'turnTo'], width: 3, none: 0, cyclic: 360 },
  size: { names: ['sizeFrom', 'sizeTo'], width: 1, none: 1, cyclic: 0 },
  stretch: { names: ['stretchFrom', 'stretchTo'], width: 3, none: 1, cyclic: 0 },
  roughness: { names: ['amountFrom', 'amountTo'], width: 1, none: 0, cyclic: 0 },
  metalness: { names: ['amountFrom', 'amountTo'], width: 1, none: 0, cyclic: 0 },
  shown: { names: ['share'], width: 1, none: 0, cyclic: 0 },
};

/** Copies changed by values between two, each by its own weight. */
export function change(v: VaryValues, copies: Copies, context: StepContext): Mesh {
  const n = copies.source.length;
  const weights = weightsOf(v, copies, context);
  const strengths = strengthsOf(v, copies, context);
  if (v.what === 'colour') return coloured(v, copies, weights, strengths);
  if (v.what === 'source') {
    const count = copies.sources.length;
    const source = copies.source.map((s, i) => (strengths && strengths[i] < 0.5 ? s : Math.max(0, Math.min(count - 1, Math.floor(weights[i] * count)))));
    return withCopies({ ...copies, source });
  }
  const { names, width, none, cyclic } = BETWEEN[v.what]!;
  const values = followed(v, names, cyclic, v as never, copies, context);
  const matrices = v.what === 'roughness' || v.what === 'metalness' ? copies.matrices : copies.matrices.slice();
  const looks = matrices === copies.matrices ? (copies.looks?.slice() ?? new Float32Array(2 * n).fill(NaN)) : undefined;
  const d = new Float64Array(width);
  for (let i = 0; i < n; i++) {
    const list = values(i);
    const s = strengths ? strengths[i] : 1;
    if (v.what === 'shown') {
      // A copy is whole once the share has passed it, and grows over the share before that.
      const soft = Math.max(1e-6, v.shareSoft);
      const x = Math.max(0, Math.min(1, (list[0] * (1 + soft / 100) - 100 * weights[i]) / soft));
      scale(matrices, 16 * i, 1 - s * (1 - x * x * (3 - 2 * x)));
      continue;
    }
    for (let k = 0; k < width; k++) d[k] = none + s * (list[k] + weights[i] * (list[width + k] - list[k]) - none);
    if (v.what === 'shift') shift(matrices, 16 * i, d, v.own);
    else if (v.what === 'turn') turn(matrices, 16 * i, d);
    else if (v.what === 'size') scale(matrices, 16 * i, d[0]);
    else if (v.what === 'stretch') for (let c = 0; c < 3; c++) for (let r = 0; r < 3; r++) matrices[16 * i + 4 * c + r] *= d[c];
    else if (s > 0) looks![2 * i + (v.what === 'metalness' ? 1 : 0)] = Math.max(0, Math.min(1, d[0] / 100));
  }
  const out = { ...copies, matrices, ...(looks ? { looks } : {}) };
  return withCopies(v.what === 'shown' ? filtered(out, (i) => matrices[16 * i] !== 0 || matrices[16 * i + 1] !== 0 || matrices[16 * i + 2] !== 0) : out);
}

function scale(m: Float32Array, o: number, x: number): void {
  for (let c = 0; c < 12; c += 4) for (let r = 0; r < 3; r++) m[o + c + r] *= x;
}

function shift(m: Float32Array, o: number, d: Float64Array, own: boolean): void {
  for (let r = 0; r < 3; r++) {
    let x = d[r];
    if (own) {
      x = 0;
      for (let c = 0; c < 3; c++) {
        const q = o + 4 * c;
        // Metres stay metres: axes are taken at unit length, however large the copy is.
        const l = Math.sqrt(m[q] * m[q] + m[q + 1] * m[q + 1] + m[q + 2] * m[q + 2]) || 1;
        x += (m[q + r] / l) * d[c];
      }
    }
    m[o + 12 + r] += x;
  }
}

const RADIAN = Math.PI / 180;

/** Turns a copy about its own x, then y, then z: its matrix times Rz·Ry·Rx, with its sizes left where they are. */
function turn(m: Float32Array, o: number, d: Float64Array): void {
  const size = [0, 4, 8].map((q) => Math.sqrt(m[o + q] ** 2 + m[o + q + 1] ** 2 + m[o + q + 2] ** 2));
  const even = size[0] === size[1] && size[1] === size[2];
  if (!even) for (let c = 0; c < 3; c++) if (size[c] > 0) for (let r = 0; r < 3; r++) m[o + 4 * c + r] /= size[c];
  if (d[2] !== 0) plane(m, o, o + 4, d[2]);
  if (d[1] !== 0) plane(m, o + 8, o, d[1]);
  if (d[0] !== 0) plane(m, o + 4, o + 8, d[0]);
  if (!even) for (let c = 0; c < 3; c++) for (let r = 0; r < 3; r++) m[o + 4 * c + r] *= size[c];
}

/** Turns two columns towards each other: the first towards the second. */
function plane(m: Float32Array, a: number, b: number, degrees: number): void {
  const t = (degrees % 360) * RADIAN;
  const [s, c] = [Math.sin(t), Math.cos(t)];
  for (let r = 0; r < 3; r++) {
    const [x, y] = [m[a + r], m[b + r]];
    m[a + r] = c * x + s * y;
    m[b + r] = c * y - s * x;
  }
}

const STOPS = 255;

function coloured(v: VaryValues, copies: Copies, weights: Float32Array, strengths: Float32Array | null): Mesh {
  const n = weights.length;
  const colours = copies.colours?.slice() ?? new Float32Array(3 * n).fill(NaN);
  const mix = blend(v.colourFrom, v.colourTo);
  const table = Array.from({ length: STOPS + 1 }, (_, i) => rgb(mix(i / STOPS)));
  for (let i = 0; i < n; i++) {
    const c = table[Math.round(STOPS * Math.max(0, Math.min(1, weights[i])))];
    const s = strengths ? strengths[i] : 1;
    if (s === 0) continue;
    for (let k = 0; k < 3; k++) {
      const before = colours[3 * i + k];
      // Over a colour given before, a region fades; over the finish's own it begins where it is half as strong.
      colours[3 * i + k] = Number.isNaN(before) ? (s >= 0.5 ? c[k] : NaN) : before + s * (c[k] - before);
    }
  }
  return withCopies({ ...copies, colours });
}

function rgb(hex: string): [number, number, number] {
  return [1, 3, 5].map((i) => parseInt(hex.slice(i, i + 2), 16) / 255) as [number, number, number];
}

/** Copies of which each plays everything before this step at a time of its own. */
export function playedLate(v: VaryValues, input: Mesh, context: StepContext): Mesh {
  const copies = input.copies!;
  if (!context.inputAt) return input;
  const n = copies.source.length;
  const weights = weightsOf(v, copies, context);
  const strengths = strengthsOf(v, copies, context);
  const { frames } = context.clock;
  const sources: Mesh[] = [];
  const number = new Map<Mesh, number>();
  const source = new Uint16Array(n);
  const matrices = new Float32Array(16 * n);
  const late = new Float32Array(n);
  const moments = new Map<number, Copies>();
  for (let i = 0; i < n; i++) {
    const share = ((strengths ? strengths[i] : 1) * (v.lateFrom + weights[i] * (v.lateTo - v.lateFrom))) / 100;
    const shift = -Math.round(share * frames) % frames;
    let there = moments.get(shift);
    if (!there) {
      there = context.inputAt(shift).copies;
      if (!there || there.source.length !== n) throw new StepProblem('The number of copies changes over the loop, so that they cannot be told apart at other times; put Vary before what changes it, or keep Count still.');
      moments.set(shift, there);
    }
    const mesh = there.sources[there.source[i]];
    let s = number.get(mesh);
    if (s === undefined) {
      if (sources.length >= 65_535) throw new StepProblem(`There would be more than ${formatCount(65_535)} different shapes among the copies; use fewer copies or fewer frames.`);
      number.set(mesh, (s = sources.push(mesh) - 1));
    }
    source[i] = s;
    matrices.set(there.matrices.subarray(16 * i, 16 * i + 16), 16 * i);
    late[i] = (copies.late ? copies.late[i] : 0) - shift / frames;
  }
  return withCopies({ ...copies, sources: sources.length > 0 ? sources : copies.sources, source, matrices, late });
}
