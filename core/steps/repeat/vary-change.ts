import { widened } from '../../declare/widen';
import { centresOf, knowCentres, withCopies } from '../../copies/copies';
import { channelToWrite } from '../../shape/copy-channels';
import { filtered } from '../../copies/places';
import type { Copies, Mesh } from '../../shape/mesh';
import { blendTable, hexOfLab, labOf } from '../../time/colours/space';
import { formatCount, StepProblem, type StepContext } from '../step';
import { followed, lags } from './lagging';
import { changedInKernels } from './vary-run';
import { BETWEEN, type VaryValues } from './vary-values';
import { strengthsOf, weightsOf } from './vary-weights';

/** Changes copies by a value between two, each by its own weight. */
export function change(v: VaryValues, copies: Copies, context: StepContext): Mesh {
  const fast = changedInKernels([v], copies, context);
  if (fast) return fast;
  const n = copies.source.length;
  const weights = weightsOf(v, copies, context);
  const strengths = strengthsOf(v, copies, context);
  if (v.what === 'colour') return coloured(copies, weights, strengths, tablesOf(v, copies, context));
  if (v.what === 'source') {
    const count = copies.sources.length;
    const source = copies.source.map((s, i) =>
      strengths && strengths[i] < 0.5 ? s : Math.max(0, Math.min(count - 1, Math.floor(weights[i] * count))),
    );
    return withCopies({ ...copies, source });
  }
  const { names, width, none } = BETWEEN[v.what]!;
  const values = followed(v, names, widened(v), copies, context);
  if (v.what === 'roughness' || v.what === 'metalness') return looking(v.what, copies, weights, strengths, values);
  const matrices = copies.matrices.slice();
  if (v.what === 'shown') return shown(v.shareSoft, copies, matrices, weights, strengths, values);
  // If all follow the same two values, the loop need not look them up per copy.
  const [from, to] = [0, 1].map((k) =>
    Float64Array.from({ length: 3 }, (_, c) => values(0)[k * width + (width === 1 ? 0 : c)] ?? 0),
  );
  const even = n === 0 || !lags(v);
  const d = new Float64Array(3);
  const shifts = v.what === 'shift';
  const centres = shifts ? new Float32Array(3 * n) : centresOf(copies);
  for (let i = 0, o = 0; i < n; i++, o += 16) {
    if (!even) {
      const list = values(i);
      for (let c = 0; c < 3; c++) {
        from[c] = list[width === 1 ? 0 : c];
        to[c] = list[width === 1 ? 1 : 3 + c];
      }
    }
    const w = weights[i];
    const s = strengths === null ? 1 : strengths[i];
    d[0] = none + s * (from[0] + w * (to[0] - from[0]) - none);
    d[1] = none + s * (from[1] + w * (to[1] - from[1]) - none);
    d[2] = none + s * (from[2] + w * (to[2] - from[2]) - none);
    if (shifts) {
      shift(matrices, o, d, v.own);
      centres[3 * i] = matrices[o + 12];
      centres[3 * i + 1] = matrices[o + 13];
      centres[3 * i + 2] = matrices[o + 14];
    } else if (v.what === 'turn') turn(matrices, o, d);
    // A spring may overshoot below zero: the body then has no size, rather than being turned inside out.
    else scale(matrices, o, Math.max(0, d[0]), Math.max(0, d[1]), Math.max(0, d[2]));
  }
  knowCentres(matrices, centres);
  return withCopies({ ...copies, matrices });
}

type PerCopy = (i: number) => readonly number[];

/** Roughness or metalness of each copy. */
function looking(
  channel: 'roughness' | 'metalness',
  copies: Copies,
  weights: Float32Array,
  strengths: Float32Array | null,
  values: PerCopy,
): Mesh {
  const out = channelToWrite(copies.channels, channel, weights.length);
  for (let i = 0; i < weights.length; i++) {
    const [from, to] = values(i);
    const s = strengths ? strengths[i] : 1;
    if (s > 0) out[i] = Math.max(0, Math.min(1, (s * (from + weights[i] * (to - from))) / 100));
  }
  return withCopies({ ...copies, channels: { ...copies.channels, [channel]: out } });
}

/** Copies of which only a fraction exists. A copy is whole once the fraction has passed it, and grows just before. */
function shown(
  soft: number,
  copies: Copies,
  matrices: Float32Array,
  weights: Float32Array,
  strengths: Float32Array | null,
  values: PerCopy,
): Mesh {
  const over = Math.max(1e-6, soft);
  for (let i = 0; i < weights.length; i++) {
    const x = Math.max(0, Math.min(1, (values(i)[0] * (1 + over / 100) - 100 * weights[i]) / over));
    const size = 1 - (strengths ? strengths[i] : 1) * (1 - x * x * (3 - 2 * x));
    scale(matrices, 16 * i, size, size, size);
  }
  return withCopies(
    filtered(
      { ...copies, matrices },
      (i) => matrices[16 * i] !== 0 || matrices[16 * i + 1] !== 0 || matrices[16 * i + 2] !== 0,
    ),
  );
}

/** Scales a copy along its own axes. */
function scale(m: Float32Array, o: number, x: number, y: number, z: number): void {
  m[o] *= x;
  m[o + 1] *= x;
  m[o + 2] *= x;
  m[o + 4] *= y;
  m[o + 5] *= y;
  m[o + 6] *= y;
  m[o + 8] *= z;
  m[o + 9] *= z;
  m[o + 10] *= z;
}

const lengthAt = (m: Float32Array, o: number) => Math.sqrt(m[o] * m[o] + m[o + 1] * m[o + 1] + m[o + 2] * m[o + 2]);

function shift(m: Float32Array, o: number, d: Float64Array, own: boolean): void {
  if (!own) {
    m[o + 12] += d[0];
    m[o + 13] += d[1];
    m[o + 14] += d[2];
    return;
  }
  // Metres stay metres: axes are normalised, however large the copy is.
  for (let c = 0; c < 3; c++) {
    if (d[c] === 0) continue;
    const q = o + 4 * c;
    const x = d[c] / (lengthAt(m, q) || 1);
    m[o + 12] += m[q] * x;
    m[o + 13] += m[q + 1] * x;
    m[o + 14] += m[q + 2] * x;
  }
}

/** Rotates a copy about its own x, then y, then z: its matrix times Rz·Ry·Rx, with its scales unchanged. */
function turn(m: Float32Array, o: number, d: Float64Array): void {
  const a = lengthAt(m, o);
  const b = lengthAt(m, o + 4);
  const c = lengthAt(m, o + 8);
  // Scales that differ only by rounding count as equal.
  const even = Math.abs(a - b) <= 1e-6 * a && Math.abs(b - c) <= 1e-6 * b;
  if (!even) scale(m, o, a > 0 ? 1 / a : 0, b > 0 ? 1 / b : 0, c > 0 ? 1 / c : 0);
  if (d[2] !== 0) plane(m, o, o + 4, d[2]);
  if (d[1] !== 0) plane(m, o + 8, o, d[1]);
  if (d[0] !== 0) plane(m, o + 4, o + 8, d[0]);
  if (!even) scale(m, o, a, b, c);
}

/** Rotates two columns towards each other: the first towards the second. */
function plane(m: Float32Array, a: number, b: number, degrees: number): void {
  // Sine and cosine by their series within an eighth of a turn, exact at quarters; within 2e−9 elsewhere.
  const quarters = Math.round(degrees / 90);
  const r = (degrees / 90 - quarters) * (Math.PI / 2);
  const q = r * r;
  let s = r * (1 + q * (-1 / 6 + q * (1 / 120 + q * (-1 / 5040 + q / 362_880))));
  let c = 1 + q * (-1 / 2 + q * (1 / 24 + q * (-1 / 720 + q * (1 / 40_320 - q / 3_628_800))));
  const turned = quarters & 3;
  if (turned === 1) [s, c] = [c, -s];
  else if (turned === 2) [s, c] = [-s, -c];
  else if (turned === 3) [s, c] = [-c, s];
  for (let k = 0; k < 3; k++) {
    const x = m[a + k];
    const y = m[b + k];
    m[a + k] = c * x + s * y;
    m[b + k] = c * y - s * x;
  }
}

const COLOURS = ['colourFrom', 'colourTo'] as const;

/** The colour blend of each copy: one for all, or one for its own time and springs; springs act in OKLab. */
function tablesOf(v: VaryValues, copies: Copies, context: StepContext): (i: number) => Float32Array {
  if (!lags(v)) {
    const table = blendTable(v.colourFrom, v.colourTo);
    return () => table;
  }
  const values = followed(v, COLOURS, widened(v), copies, context, (names, x) =>
    names.flatMap((name) => labOf(widened(x[name]))),
  );
  return (i) => {
    const c = values(i);
    return blendTable(hexOfLab(c[0], c[1], c[2]), hexOfLab(c[3], c[4], c[5]));
  };
}

function coloured(
  copies: Copies,
  weights: Float32Array,
  strengths: Float32Array | null,
  tableOf: (i: number) => Float32Array,
): Mesh {
  const n = weights.length;
  const colours = channelToWrite(copies.channels, 'baseColor', n);
  for (let i = 0; i < n; i++) {
    const table = tableOf(i);
    const c = 3 * Math.round(255 * Math.max(0, Math.min(1, weights[i])));
    const s = strengths ? strengths[i] : 1;
    if (s === 0) continue;
    if (s === 1) {
      colours[3 * i] = table[c];
      colours[3 * i + 1] = table[c + 1];
      colours[3 * i + 2] = table[c + 2];
      continue;
    }
    for (let k = 0; k < 3; k++) {
      const before = colours[3 * i + k];
      // Over an earlier colour a region blends; over the material's own it switches at half strength.
      colours[3 * i + k] = Number.isNaN(before)
        ? s >= 0.5
          ? table[c + k]
          : NaN
        : before + s * (table[c + k] - before);
    }
  }
  return withCopies({ ...copies, channels: { ...copies.channels, baseColor: colours } });
}

/** Copies that each play everything before this step at their own time. */
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
      if (!there || there.source.length !== n)
        throw new StepProblem(
          'The number of copies changes over the loop, so that they cannot be told apart at other times; put Vary ' +
            'before what changes it, or keep Count still.',
        );
      moments.set(shift, there);
    }
    const mesh = there.sources[there.source[i]];
    let s = number.get(mesh);
    if (s === undefined) {
      if (sources.length >= 65_535)
        throw new StepProblem(
          `There would be more than ${formatCount(65_535)} different shapes among the copies; use fewer copies or fewer frames.`,
        );
      number.set(mesh, (s = sources.push(mesh) - 1));
    }
    source[i] = s;
    matrices.set(there.matrices.subarray(16 * i, 16 * i + 16), 16 * i);
    late[i] = (copies.late ? copies.late[i] : 0) - shift / frames;
  }
  return withCopies({ ...copies, sources: sources.length > 0 ? sources : copies.sources, source, matrices, late });
}
