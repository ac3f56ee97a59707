import type { Metric } from '@maypole/core/noise/kind';
import * as billowed from '@maypole/core/noise/kinds/billowed';
import { CELLULAR_BY } from '@maypole/core/noise/kinds/cellular';
import { EDGES_MEAN, EDGES_SPREAD } from '@maypole/core/noise/kinds/cellular-edges';
import { SECOND_MEAN, SECOND_SPREAD } from '@maypole/core/noise/kinds/cellular-second';
import * as soft from '@maypole/core/noise/kinds/cellular-soft';
import * as flow from '@maypole/core/noise/kinds/flow';
import * as ridged from '@maypole/core/noise/kinds/ridged';
import * as turbulence from '@maypole/core/noise/kinds/turbulence';
import * as water from '@maypole/core/noise/kinds/water';
import { GRAIN } from '@maypole/core/noise/kinds/white';
import { RINGS } from '@maypole/core/noise/kinds/wood';
import { float, floor, fract, int, sin, vec3 } from 'three/tsl';
import { cellsAt, softCellsAt } from './cell-nodes';
import { gradientAt, simplexAt, valueAt, type Place, type Table } from './lattice-nodes';
import { integer, rgb, scalar, type Int, type Rgb, type Scalar } from '../surfaces/tsl';

/** What a noise table holds in its 256 entries, besides the permutation. */
export type TableOf = 'gradients' | 'points' | 'values' | 'standing points' | 'levels';

/** One octave of a noise as shader nodes: the tables that it reads, and its value. */
interface NoiseNodes {
  /** What each table holds, and its seed as a function of the noise's seed. */
  readonly tables: readonly { readonly of: TableOf; readonly seed: (seed: number) => number }[];
  /**
   * @param p lattice position
   * @param tables in the order above
   * @param mask lattice period, less one
   * @param phase of parts that advance by whole cycles with the rate, 0…1
   */
  at(p: Rgb, tables: readonly Table[], mask: Int, phase: Scalar, metric: Metric): Scalar;
}

const same = (seed: number) => seed;
const gradients = (...steps: number[]) => steps.map((k) => ({ of: 'gradients' as const, seed: (s: number) => s + k }));
const one = (of: TableOf) => [{ of, seed: same }];

/** Masks of the second and third term of a sum whose positions double each time. */
const doubled = (mask: Int, times: number): Int =>
  integer(
    int(float(mask.add(1).mul(times)).min(256))
      .sub(1)
      .toVar(),
  );

/** Σ |n(2ⁱp)| / 2ⁱ, three terms. */
function turbulent(p: Rgb, tables: readonly Table[], mask: Int): Scalar {
  const terms = [1, 2, 4].map((times, i) =>
    gradientAt(tables[i], at(p.mul(times).toVar()), doubled(mask, times))
      .abs()
      .div(times),
  );
  return scalar(terms[0].add(terms[1]).add(terms[2]));
}

const at = (p: unknown): Place => p as Place;
const bySpread = (value: unknown, mean: number, spread: number) => scalar((value as Scalar).sub(mean).mul(spread));

/** Every kind of noise as shader nodes. They must agree with the declarations in core. */
export const noiseNodes: Readonly<Record<string, NoiseNodes>> = {
  gradient: { tables: gradients(0), at: (p, [t], mask) => gradientAt(t, p, mask) },
  simplex: { tables: gradients(0), at: (p, [t], mask) => simplexAt(t, p, mask) },
  value: { tables: one('values'), at: (p, [t], mask) => valueAt(t, p, mask) },
  cellular: {
    tables: one('points'),
    at(p, [t], mask, _, metric) {
      const { mean, spread } = CELLULAR_BY[metric];
      return bySpread(cellsAt(t, p, mask, metric).first, mean, spread);
    },
  },
  'cellular-second': {
    tables: one('points'),
    at: (p, [t], mask, _, metric) =>
      bySpread(cellsAt(t, p, mask, metric).second, SECOND_MEAN[metric], SECOND_SPREAD[metric]),
  },
  'cellular-edges': {
    tables: one('points'),
    at(p, [t], mask, _, metric) {
      const { first, second } = cellsAt(t, p, mask, metric);
      return bySpread(second.sub(first), EDGES_MEAN[metric], EDGES_SPREAD[metric]);
    },
  },
  'cellular-soft': {
    tables: one('points'),
    at: (p, [t], mask, _, metric) =>
      bySpread(softCellsAt(t, p, mask, metric, soft.SHARP), soft.MEAN[metric], soft.SPREAD),
  },
  stepped: {
    tables: [
      { of: 'standing points', seed: same },
      { of: 'levels', seed: same },
    ],
    at: (p, [points, levels], mask, _, metric) => levels.read(cellsAt(points, p, mask, metric).nearest).y,
  },
  ridged: {
    tables: gradients(0),
    at(p, [t], mask) {
      const r = float(1).sub(gradientAt(t, p, mask).abs());
      return bySpread(r.mul(r), ridged.MEAN, ridged.SPREAD);
    },
  },
  billowed: {
    tables: gradients(0),
    at: (p, [t], mask) => bySpread(gradientAt(t, p, mask).abs(), billowed.MEAN, billowed.SPREAD),
  },
  turbulence: {
    tables: gradients(0, 1013, 2026),
    at: (p, tables, mask) => bySpread(turbulent(p, tables, mask).div(1.75), turbulence.MEAN, turbulence.SPREAD),
  },
  flow: {
    tables: gradients(0, 331, 662, 993),
    at(p, [base, ...others], mask) {
      const moved = vec3(...(others.map((t) => gradientAt(t, p, mask)) as [Scalar, Scalar, Scalar]));
      return scalar(gradientAt(base, at(p.add(moved.mul(1.1))), mask).mul(flow.SPREAD));
    },
  },
  blotches: {
    tables: gradients(0),
    at(p, [t], mask) {
      const v = gradientAt(t, p, mask).mul(5).clamp(-1, 1).toVar();
      return scalar(v.mul(1.5).sub(v.mul(v).mul(v).mul(0.5)));
    },
  },
  water: {
    tables: gradients(0, 577),
    at(p, [a, b], mask) {
      const m = gradientAt(a, p, mask).toVar();
      const n = gradientAt(b, at(p.add(vec3(m.mul(0.35), m.mul(-0.35), 0))), mask).toVar();
      const k = gradientAt(a, at(p.add(vec3(n.mul(0.5).add(7.3), n.mul(0.35), n.mul(-0.35)))), mask);
      const [u, v] = [float(1).sub(n.abs()), float(1).sub(k.abs())];
      return bySpread(u.mul(u).mul(v).mul(v).mul(1.2), water.MEAN, water.SPREAD);
    },
  },
  marble: {
    tables: gradients(0, 907, 1814),
    at: (p, tables, mask, phase) =>
      scalar(
        sin(
          p.x
            .mul(Math.PI)
            .add(turbulent(p, tables, mask).mul(5.12))
            .add(phase.mul(2 * Math.PI)),
        ),
      ),
  },
  wood: {
    tables: gradients(0),
    at(p, [t], mask, phase) {
      const push = gradientAt(t, at(p.mul(vec3(1, 0.4, 1))), mask);
      const r = p.x.mul(p.x).add(p.z.mul(p.z)).sqrt().add(push.mul(0.35));
      const f = fract(r.mul(RINGS).sub(phase)).toVar();
      return scalar(f.lessThan(0.8).select(f.mul(2.5).sub(1), float(1).sub(f.sub(0.8).mul(10))));
    },
  },
  white: {
    tables: one('values'),
    at(p, [t], mask) {
      const wrap = int(float(mask.add(1).mul(GRAIN)).min(256)).sub(1) as Int;
      const cell = t.wrapped(rgb(floor(p.mul(GRAIN))), wrap);
      return t.read(t.hash(t.hash(cell.x).add(cell.y) as Int).add(cell.z) as Int).y;
    },
  },
};

/** Kinds with parts that advance by whole cycles with the rate. */
export const GOES_ON = new Set(['marble', 'wood']);
