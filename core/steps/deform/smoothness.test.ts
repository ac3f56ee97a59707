import { describe, expect, it } from 'vitest';
import type { StoredValue } from '../../declare/params';
import { MeshCache } from '../../evaluate/mesh-cache';
import { evaluateRibbon } from '../../evaluate/ribbon';
import { randomSource } from '../../maths/random';
import { newRibbon, newStep, type StepDoc } from '../../piece/piece';
import { stepKinds } from '../index';
import { roundedAbs } from './frame';

const FRAMES = 100;
const turn = (from = 0): StoredValue => ({ motion: 'keys', adds: 360, keys: [{ at: 0, value: from, to: 'linear' }] });
const FORMS: Record<string, Record<string, StoredValue>> = {
  torus: { ringSegments: 40, pipeSegments: 12 },
  box: { size: [1, 2, 0.7], segments: 3 },
  plane: {},
};

/** Largest jump of speed of any point at a frame, against the mean speed of all points round the loop; over a hundredth of a frame. */
function jumps(form: string, step: StepDoc, frames: readonly number[]): number[] {
  const ribbon = { ...newRibbon(form, 0), steps: [newStep(form, FORMS[form]), step] };
  const at = (f: number) =>
    evaluateRibbon(ribbon, { frames: FRAMES, fps: 25 }, f, 'draft', new MeshCache()).mesh.positions;
  const h = 0.01;
  let total = 0;
  const found = frames.map((f) => {
    const [a, b, c] = [at(f - h), at(f), at(f + h)];
    let jump = 0;
    let speed = 0;
    for (let i = 0; i < a.length; i += 3) {
      jump = Math.max(
        jump,
        Math.hypot(c[i] - 2 * b[i] + a[i], c[i + 1] - 2 * b[i + 1] + a[i + 1], c[i + 2] - 2 * b[i + 2] + a[i + 2]) / h,
      );
      speed += Math.hypot(c[i] - a[i], c[i + 1] - a[i + 1], c[i + 2] - a[i + 2]) / (2 * h);
    }
    total += speed / (a.length / 3);
    return jump;
  });
  return found.map((j) => j / Math.max(2e-3, total / frames.length));
}

describe('a deformer whose pivot turns once in the loop', () => {
  const quarters = [0, 25, 50, 75, 100];
  const between = [3, 11.4, 18, 33, 41.7, 62, 88];
  const deformers = stepKinds.filter((k) => k.group === 'deform' && k.params.pivotTurn);
  it('there are some', () =>
    expect(deformers.map((k) => k.kind)).toEqual(
      expect.arrayContaining(['twist', 'bend', 'taper', 'shear', 'ripple', 'spherify']),
    ));
  for (const kind of deformers)
    for (const form of Object.keys(FORMS))
      for (const axis of [0, 1, 2])
        it(`${kind.kind} of a ${form} moves without a jerk, turned about ${'xyz'[axis]}`, () => {
          const random = randomSource(axis + kind.kind.length * 7);
          const pivotTurn = [0, 1, 2].map((k) => (k === axis ? turn() : 0)) as unknown as StoredValue;
          const strong: Record<string, StoredValue> =
            kind.kind === 'twist' ? { angle: 240 } : kind.kind === 'ripple' ? { fade: 1.5, travels: 1 } : {};
          for (const pivot of [
            [0, 0, 0],
            [random() - 0.5, random() - 0.5, random() - 0.5],
          ])
            for (const j of jumps(form, newStep(kind.kind, { ...strong, pivotTurn, pivot: pivot as never }), [
              ...quarters,
              ...between,
            ]))
              expect(j).toBeLessThan(0.2);
        });
  it('the old measure of a form did jerk: a twist by the true extents of a torus has a corner where the frame lies flat', () => {
    // The extent of a torus along a direction tilted by θ is 2(R·|sin θ| + r), which has a corner at 0.
    const [R, r] = [0.82, 0.17];
    const extent = (a: number) => 2 * (R * Math.abs(Math.sin(a)) + r);
    const smooth = (a: number) => 2 * Math.hypot((R + r) * Math.sin(a), r * Math.cos(a));
    const corner = (f: (a: number) => number) => Math.abs((f(1e-4) - 2 * f(0) + f(-1e-4)) / 1e-4);
    expect(corner(extent)).toBeCloseTo(4 * R, 2);
    expect(corner(smooth)).toBeLessThan(0.01);
  });
  it('extents along the axes of the room are those of the form, whatever the frame was turned by before', () => {
    const run = (values: Record<string, StoredValue>) =>
      evaluateRibbon(
        { ...newRibbon('box', 0), steps: [newStep('box', FORMS.box), newStep('twist', { angle: 90, ...values })] },
        { frames: FRAMES, fps: 25 },
        0,
        'draft',
        new MeshCache(),
      ).mesh.positions;
    const [plain, turned] = [run({ axis: 'y' }), run({ axis: 'y', pivotTurn: [0, 30, 0] })];
    for (let i = 0; i < plain.length; i++) expect(turned[i]).toBeCloseTo(plain[i], 5);
  });
  it('the rounded |x| meets |x| in value and slope, and is flat at 0', () => {
    for (const x of [0.5, -0.5, 2, -3]) expect(roundedAbs(x, 0.5)).toBe(Math.abs(x));
    const slope = (x: number) => (roundedAbs(x + 1e-5, 0.5) - roundedAbs(x - 1e-5, 0.5)) / 2e-5;
    expect(slope(0.4999)).toBeCloseTo(1, 3);
    expect(slope(0)).toBeCloseTo(0, 9);
  });
});
