import { describe, expect, it } from 'vitest';
import { endless } from '../../steps/forms/endless';
import { place } from '../../steps/place/place';
import { spin } from '../../steps/place/spin';
import { twist } from '../../steps/deform/twist';
import { defaultsOf } from '../../declare/params';
import type { StepKind } from '../../steps/step';
import type { Mesh } from '../mesh';
import { fieldBound, movedField } from './field';

const context = { clock: { frame: 7, frames: 30 }, detail: 'final' as const };
const EMPTY = { connectivity: { vertexCount: 0, faceStart: new Uint32Array(1), corners: new Uint32Array(0) } };

function run(kind: StepKind, values: object, input: Mesh = { ...EMPTY, positions: new Float32Array(0) }): Mesh {
  return kind.evaluate({ ...defaultsOf(kind.params), ...values } as never, input, context);
}

/** How far points of a shape are from the form it carries, in metres as far as its matrix keeps angles. */
function farthest({ positions, field }: Mesh): number {
  const bound = fieldBound(field!);
  const m = field!.matrix;
  const size = Math.hypot(m[0], m[1], m[2]);
  let most = 0;
  for (let i = 0; i < positions.length; i += 3) {
    const d = [0, 1, 2].map((k) => positions[i + k] - m[12 + k]);
    // The linear part is a turn times a size, so its inverse is its transpose over the size squared.
    const own = [0, 4, 8].map((c) => (m[c] * d[0] + m[c + 1] * d[1] + m[c + 2] * d[2]) / size ** 2);
    most = Math.max(most, Math.abs(size * bound(own[0], own[1], own[2])));
  }
  return most;
}

describe('the form beside its faces', () => {
  const lattice = { form: 'lattice', cells: 48, skin: 2, size: 0.9 };
  const cell = (2 * 0.9) / 48;
  it('is where the faces are, and goes along where they are placed and spun', () => {
    const made = run(endless as StepKind, lattice);
    expect(made.positions.length).toBeGreaterThan(3000);
    expect(farthest(made)).toBeLessThan(cell);
    const placed = run(place as StepKind, { shift: [1, 2, -3], turn: [20, 130, -40], size: 2.5 }, made);
    expect(farthest(placed)).toBeLessThan(2.5 * cell);
    const spun = run(spin as StepKind, { axis: 'free', direction: [1, 2, 3], through: [4, 0, -1], angle: 33 }, placed);
    expect(spun.positions).not.toEqual(placed.positions);
    expect(farthest(spun)).toBeLessThan(2.5 * cell);
  });
  it('is left behind by what bends the faces, by what makes nothing of it, and where faces are asked for', () => {
    const made = run(endless as StepKind, lattice);
    expect(run(twist as StepKind, { angle: 90 }, made).field).toBeUndefined();
    expect(run(place as StepKind, { size: 0 }, made).field).toBeUndefined();
    expect(run(endless as StepKind, { ...lattice, drawn: 'faces' }).field).toBeUndefined();
    expect(movedField(undefined, [1, 0, 0, 0, 1, 0, 0, 0, 1], [0, 0, 0])).toBeUndefined();
  });
  it('shows another part of itself where it is zoomed into: the same place, so many times as large', () => {
    const { field } = run(endless as StepKind, {
      form: 'sponge',
      skin: 0,
      rounds: 4,
      zoom: 3,
      middle: [0.4, 0.1, 0.2],
    });
    const plain = { ...field!, zoom: 1, middle: [0, 0, 0] as const };
    for (const p of [
      [0.1, 0.2, 0.05],
      [-0.2, 0.1, 0.3],
      [0.02, -0.3, 0.1],
    ] as const) {
      const [x, y, z] = [p[0] / 3 + 0.4, p[1] / 3 + 0.1, p[2] / 3 + 0.2];
      const [near, far] = [fieldBound(field!)(p[0], p[1], p[2]), 3 * fieldBound(plain)(x, y, z)];
      // What it is cut by may be nearer than the form; the ball is not zoomed.
      expect(near).toBeCloseTo(Math.max(far, Math.hypot(...p) - 1), 9);
    }
  });
  it('closes: what it takes after whole turns of its angle is what it took before', () => {
    for (const form of ['box', 'sponge', 'bulb', 'julia', 'net', 'lattice']) {
      const [at0, at1] = [0, 360].map((angle) => run(endless as StepKind, { form, angle, cells: 8 }).field!);
      for (const p of [
        [0.3, 0.4, 0.5],
        [-0.6, 0.1, 0.2],
      ] as const)
        expect(fieldBound(at1)(p[0], p[1], p[2])).toBeCloseTo(fieldBound(at0)(p[0], p[1], p[2]), 9);
    }
  });
});
