import { describe, expect, it } from 'vitest';
import { form, step } from '../../fixtures/forms';
import { eulerCharacteristic } from '../../shape/measure';
import type { Mesh } from '../../shape/mesh';
import { topologyOf } from '../../shape/topology';

/**
 * Euler characteristic of the sheet in a cube of n periods. Cut by a cube it is a polynomial in n whose
 * cubic part is that of whole cells alone; the third difference is six times it. Even and odd
 * numbers of periods are cut in other places of the pattern, which leaves less than 1; the table's own
 * values lie 4 apart.
 */
function perCell(surface: string): number {
  const at = (n: number) =>
    eulerCharacteristic(
      form('minimal', {
        surface,
        cut: 'cube',
        size: n / 2,
        period: 1,
        thickness: 40,
        cells: 20 * n,
        travels: [0, 0, 0],
      }),
    );
  return (at(4) - 3 * at(3) + 3 * at(2) - at(1)) / 6;
}

/**
 * Mean curvature against the root of the Gaussian one, at vertices away from the cut: cotangent weights and
 * angle defects (M. Meyer et al., 2003).
 */
function flatness(mesh: Mesh, reach: number): number {
  const m = step('triangulate', mesh);
  const p = m.positions;
  const { corners, vertexCount } = m.connectivity;
  const at = (v: number) => [p[3 * v], p[3 * v + 1], p[3 * v + 2]];
  const laplace = new Float64Array(3 * vertexCount);
  const area = new Float64Array(vertexCount);
  const angle = new Float64Array(vertexCount);
  for (let t = 0; t < corners.length; t += 3)
    for (let k = 0; k < 3; k++) {
      const [i, j, l] = [corners[t + k], corners[t + ((k + 1) % 3)], corners[t + ((k + 2) % 3)]];
      const [u, v] = [at(i).map((x, q) => x - at(l)[q]), at(j).map((x, q) => x - at(l)[q])];
      const cross = Math.hypot(u[1] * v[2] - u[2] * v[1], u[2] * v[0] - u[0] * v[2], u[0] * v[1] - u[1] * v[0]);
      const dot = u[0] * v[0] + u[1] * v[1] + u[2] * v[2];
      angle[l] += Math.atan2(cross, dot);
      area[l] += cross / 6;
      for (let q = 0; q < 3; q++) {
        laplace[3 * i + q] += ((dot / cross) * (p[3 * i + q] - p[3 * j + q])) / 2;
        laplace[3 * j + q] += ((dot / cross) * (p[3 * j + q] - p[3 * i + q])) / 2;
      }
    }
  const { border } = topologyOf(m.connectivity);
  let [mean, gauss] = [0, 0];
  for (let v = 0; v < vertexCount; v++) {
    if (border[v] || Math.max(...at(v).map(Math.abs)) > reach) continue;
    mean += Math.hypot(laplace[3 * v], laplace[3 * v + 1], laplace[3 * v + 2]) / 2;
    gauss += Math.sqrt(Math.abs(2 * Math.PI - angle[v]) * area[v]);
  }
  return mean / gauss;
}

describe('minimal surfaces', () => {
  // Both sides of the sheet count. Genus 3 per primitive cell: χ = −4 (A. Schoen, NASA TN D-5541, 1970);
  // the cube of a period holds one such cell of P, two of the gyroid and four of D with its order here.
  it.each([
    ['primitive', -4],
    ['gyroid', -8],
    ['diamond', -16],
  ])('the %s has the genus of the table: χ = %i a cube', (surface, chi) => {
    expect(Math.abs(perCell(surface) - 2 * (chi as number))).toBeLessThan(1);
  });
  it.each(['gyroid', 'primitive', 'diamond'])(
    'the sheet of the %s bends as much one way as the other: little mean curvature',
    (surface) => {
      const thin = step(
        'smooth',
        form('minimal', { surface, cut: 'cube', size: 1, period: 1, thickness: 14, cells: 70, travels: [0, 0, 0] }),
        { iterations: 4, keepVolume: true, holdBorders: false },
      );
      expect(flatness(thin, 0.8)).toBeLessThan(0.35);
      // A ball is as curved one way as the other with the same sign: 1 by the same measure.
      expect(flatness(form('geodesic', { frequency: 24, radius: 0.7 }), 1)).toBeGreaterThan(0.9);
    },
  );
});
