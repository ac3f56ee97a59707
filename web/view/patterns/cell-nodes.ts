import type { Metric } from '@maypole/core/noise/kind';
import { exp, float, floor, If, int, log, Loop, vec3 } from 'three/tsl';
import { integer, rgb, scalar, type Int, type Rgb, type Scalar } from '../surfaces/tsl';
import type { Place, Table } from './lattice-nodes';

/** Farther than any feature point. */
const FAR = 1e9;

function distance(d: Rgb, metric: Metric): Scalar {
  const a = d.abs();
  if (metric === 'manhattan') return scalar(a.x.add(a.y).add(a.z));
  if (metric === 'chebyshev') return scalar(a.x.max(a.y).max(a.z));
  // Squared, as in core: the root is taken once at the end.
  return scalar(d.dot(d));
}

/** Visits every cell within a distance of a position's cell, with the table entry of its point and the vector to it. */
function eachCell(t: Table, p: Place, mask: Int, reach: number, visit: (to: Rgb, hash: Int) => void): void {
  const cell = floor(p).toVar();
  const f = p.sub(cell).toVar();
  const along = (name: string) => ({
    start: int(-reach),
    end: int(reach),
    type: 'int' as const,
    condition: '<=' as const,
    name,
  });
  // Unique names, because octaves are counted by a loop around these.
  const loop = (name: string, each: (i: Int) => void) =>
    Loop(along(name), (inputs: unknown) => each((inputs as Record<string, Int>)[name]));
  loop('a', (a) =>
    loop('b', (b) =>
      loop('c', (c) => {
        const step = vec3(float(a), float(b), float(c));
        const at = t.wrapped(rgb(cell.add(step)), mask);
        const inner = t.hash(t.hash(at.x).add(at.y) as Int).add(at.z) as Int;
        const numbers = t.read(inner).toVar();
        visit(step.add(numbers.yzw).sub(f) as Rgb, int(numbers.x) as Int);
      }),
    ),
  );
}

/**
 * Distances to the nearest and second nearest feature point, and the number of the nearest; see
 * core/noise/feature-points.
 */
export function cellsAt(
  t: Table,
  p: Place,
  mask: Int,
  metric: Metric,
): { first: Scalar; second: Scalar; nearest: Int } {
  const best = float(FAR).toVar();
  const next = float(FAR).toVar();
  const nearest = int(0).toVar();
  const look = (reach: number) =>
    eachCell(t, p, mask, reach, (to, hash) => {
      const d = distance(to, metric).toVar();
      If(d.lessThan(best), () => {
        next.assign(best);
        best.assign(d);
        nearest.assign(hash);
      }).ElseIf(d.lessThan(next), () => {
        next.assign(d);
      });
    });
  look(1);
  // Everything beyond the searched cells is at least one cell away, so a wider ring is rarely needed.
  If(next.greaterThan(1), () => {
    best.assign(FAR);
    next.assign(FAR);
    look(metric === 'manhattan' ? 3 : 2);
  });
  const told = (d: Scalar) => scalar(metric === 'euclidean' ? d.sqrt() : d);
  return { first: told(scalar(best)), second: told(scalar(next)), nearest: integer(nearest) };
}

/** The soft minimum of distances; see core/noise/kinds/cellular-soft. */
export function softCellsAt(t: Table, p: Place, mask: Int, metric: Metric, sharp: number): Scalar {
  const sum = float(0).toVar();
  eachCell(t, p, mask, 1, (to) => {
    const plain = distance(to, metric);
    const d = (metric === 'euclidean' ? plain.sqrt() : plain).toVar();
    const w = float(1).sub(d.div(1.5)).max(0).toVar();
    sum.addAssign(exp(d.mul(-sharp)).mul(w).mul(w));
  });
  return scalar(log(sum.add(1e-12)).div(-sharp).min(1.5));
}
