import { form } from '../../fixtures/forms';
import { describe, expect, it } from 'vitest';
import { topologyOf } from '../../shape/topology';
import { eulerCharacteristic, surfaceArea, volume } from '../../shape/measure';
import type { Mesh } from '../../shape/mesh';
import { StepProblem } from '../step';
import { box } from './box';
import { plane } from './plane';

const context = { clock: { frame: 0, frames: 100 }, detail: 'draft' as const };
const empty = null as unknown as Mesh;
const makeTorus = (n: number) => form('torus', { ringRadius: 3, pipeRadius: 1, ringSegments: 2 * n, pipeSegments: n });
const makeBall = (n: number) => form('geodesic', { radius: 2, frequency: n });
const makePillar = (n: number) =>
  form('cylinder', { radius: 1.5, height: 4, sides: n, rows: 5, caps: true, capRings: 3 });

/** Errors at n, 2n, 4n segments must fall four times each: the order of a polygonal approximation is 2. */
function expectSecondOrder(make: (n: number) => Mesh, measure: (m: Mesh) => number, truth: number, n: number): void {
  const errors = [n, 2 * n, 4 * n].map((k) => Math.abs(measure(make(k)) - truth) / truth);
  expect(errors[0] / errors[1]).toBeGreaterThan(3.5);
  expect(errors[0] / errors[1]).toBeLessThan(4.5);
  expect(errors[1] / errors[2]).toBeGreaterThan(3.5);
  expect(errors[2]).toBeLessThan(0.005);
}

// Volumes and areas: Bronshtein & Semendyayev, Handbook of Mathematics, section on solids.
describe('handbook formulas', () => {
  it('torus: volume 2π²Rr², area 4π²Rr', () => {
    expectSecondOrder(makeTorus, volume, 2 * Math.PI ** 2 * 3 * 1 ** 2, 16);
    expectSecondOrder(makeTorus, surfaceArea, 4 * Math.PI ** 2 * 3 * 1, 16);
  });
  it('sphere: volume 4πr³/3, area 4πr²', () => {
    expectSecondOrder(makeBall, volume, (4 / 3) * Math.PI * 8, 8);
    expectSecondOrder(makeBall, surfaceArea, 4 * Math.PI * 4, 8);
  });
  it('cylinder: volume πr²h, area 2πr(r + h)', () => {
    expectSecondOrder(makePillar, volume, Math.PI * 1.5 ** 2 * 4, 16);
    expectSecondOrder(makePillar, surfaceArea, 2 * Math.PI * 1.5 * 5.5, 16);
  });
  it('box: volume abc, area 2(ab + bc + ca), exactly', () => {
    const m = box.evaluate(
      { uneven: false, counts: [1, 1, 1], rounding: 0, size: [1, 2, 3], segments: 4 },
      empty,
      context,
    );
    expect(volume(m)).toBeCloseTo(6, 5);
    expect(surfaceArea(m)).toBeCloseTo(22, 5);
  });
  it('plane: area of the sheet, facing up', () => {
    const m = plane.evaluate({ width: 2, depth: 3, columns: 4, rows: 5 }, empty, context);
    expect(surfaceArea(m)).toBeCloseTo(6, 6);
    const [a, b, c] = m.connectivity.corners;
    const at = (v: number) => m.positions.subarray(v * 3, v * 3 + 3);
    const up = (at(b)[2] - at(a)[2]) * (at(c)[0] - at(a)[0]) - (at(b)[0] - at(a)[0]) * (at(c)[2] - at(a)[2]);
    expect(up).toBeGreaterThan(0);
  });
});

describe('Euler characteristic V − E + F', () => {
  it.each([
    ['torus', makeTorus(7), 0],
    ['geodesic sphere', makeBall(5), 2],
    ['closed cylinder', makePillar(9), 2],
    ['open cylinder', form('cylinder', { radius: 1, height: 1, sides: 7, rows: 3, caps: false, capRings: 2 }), 0],
    [
      'box',
      box.evaluate({ uneven: false, counts: [1, 1, 1], rounding: 0, size: [1, 1, 1], segments: 3 }, empty, context),
      2,
    ],
    ['plane', plane.evaluate({ width: 1, depth: 1, columns: 3, rows: 4 }, empty, context), 1],
  ])('%s', (_, mesh, chi) => expect(eulerCharacteristic(mesh)).toBe(chi));
});

describe('forms', () => {
  it('are watertight where they are closed, and turn their faces outwards', () => {
    for (const m of [
      makeTorus(6),
      makeBall(4),
      makePillar(8),
      box.evaluate({ uneven: false, counts: [1, 1, 1], rounding: 0, size: [1, 1, 1], segments: 2 }, empty, context),
    ]) {
      expect([...topologyOf(m.connectivity).borderEdge].some(Boolean)).toBe(false);
      expect(volume(m)).toBeGreaterThan(0);
    }
  });
  it('geodesic sphere has 10n² + 2 vertices, all at its radius, twelve of them with five neighbours', () => {
    const m = makeBall(6);
    expect(m.connectivity.vertexCount).toBe(362);
    for (let i = 0; i < m.positions.length; i += 3)
      expect(Math.hypot(...m.positions.subarray(i, i + 3))).toBeCloseTo(2, 5);
    const { neighbourStart } = topologyOf(m.connectivity);
    const degrees = Array.from({ length: 362 }, (_, v) => neighbourStart[v + 1] - neighbourStart[v]);
    expect(degrees.filter((d) => d === 5).length).toBe(12);
    expect(degrees.filter((d) => d === 6).length).toBe(350);
  });
  it('share their connectivity while only sizes move, so that nothing is computed twice', () => {
    const at = (pipeRadius: number) => form('torus', { ringRadius: 1, pipeRadius, ringSegments: 12, pipeSegments: 8 });
    expect(at(0.2).connectivity).toBe(at(0.3).connectivity);
  });
  it('shade caps and sides apart', () => expect(new Set(makePillar(8).connectivity.shadingGroups).size).toBe(3));
  it('say how many faces are too many, and what to do', () => {
    expect(() => form('torus', { ringRadius: 1, pipeRadius: 0.3, ringSegments: 2000, pipeSegments: 2000 })).toThrow(
      StepProblem,
    );
    expect(() => form('geodesic', { radius: 1, frequency: 400 })).toThrow(
      /3\.2M faces; the most is 2M\. Use fewer edge parts/,
    );
  });
});
