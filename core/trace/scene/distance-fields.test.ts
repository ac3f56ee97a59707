import { describe, expect, it } from 'vitest';
import { randomSource, randomUnitVector } from '../../maths/random';
import { fieldBound, movedField, type DistanceField } from '../../shape/fractals/field';
import { ball, meanOf, pictureOf, white, withSky } from '../fixture';
import { fieldBox, MarchedFields } from './distance-fields';
import { bouncesOf } from '../paths/tracer';

/** A sponge without any holes is the cube, half its edge 1/√3 of its ball. */
const cube: DistanceField = {
  form: 'sponge',
  numbers: [0, 0, 0, 0],
  rounds: 1,
  middle: [0, 0, 0],
  zoom: 1,
  cut: 'ball',
  skin: 0,
  matrix: [1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1],
};
const forms: readonly DistanceField[] = [
  { ...cube, numbers: [1, 0.2, 0, 0], rounds: 3 },
  { ...cube, form: 'bulb', numbers: [8, 0.3, 0, 0], rounds: 6, skin: 0.002 },
  { ...cube, form: 'julia', numbers: [-0.2, 0.6, 0.2, 0.2], rounds: 8, skin: 0.002 },
  { ...cube, form: 'box', numbers: [2, 0.1, 0, 0], rounds: 6, cut: 'cube', skin: 0.002 },
  { ...cube, form: 'net', numbers: [1.2, 0.4, 0, 0], rounds: 6, skin: 0.002 },
  { ...cube, form: 'lattice', numbers: [0.5, 0.28, 0.08, 0.2], rounds: 1 },
];
const turned = [0.6, 0, 0.8, 0, 1, 0, -0.8, 0, 0.6].map((x) => 1.7 * x);

describe('endless forms in true light', () => {
  it('are met where the plain formula of a cube has it, moved, turned and larger, too', () => {
    const fields = new MarchedFields();
    const edge = 1 / Math.sqrt(3);
    expect(fields.march(fields.add(cube), 0.1, 0.2, 4, 0, 0, -1, 0, Infinity)).toBeCloseTo(4 - edge, 4);
    const moved = movedField(cube, turned, [1, 2, 3])!;
    // Along the turned z axis of the cube, which is (0.8, 0, 0.6).
    const k = fields.add(moved);
    const from = [1, 2, 3].map((x, i) => x + 5 * [0.8, 0, 0.6][i]);
    expect(fields.march(k, from[0], from[1], from[2], -0.8, 0, -0.6, 0, Infinity)).toBeCloseTo(5 - 1.7 * edge, 3);
    const seen = new Float32Array(5);
    const at = [1, 2, 3].map((x, i) => x + 1.7 * edge * [0.8, 0, 0.6][i]);
    fields.evaluate(k, at[0], at[1], at[2], 0, seen, 0);
    const length = Math.hypot(seen[0], seen[1], seen[2]);
    [0.8, 0, 0.6].forEach((x, i) => expect(seen[i] / length).toBeCloseTo(x, 4));
    const { low, high } = fieldBox(moved);
    [1, 2, 3].forEach((x, i) => expect((low[i] + high[i]) / 2).toBeCloseTo(x, 9));
  });
  it.each(forms)('$form: where a ray arrives is on the form, and nothing of it lies before', (field) => {
    const fields = new MarchedFields();
    const k = fields.add(field);
    const bound = fieldBound(field);
    const random = randomSource(5);
    let met = 0;
    for (let i = 0; i < 300; i++) {
      const from = randomUnitVector(random).map((x) => 3 * x);
      const aim = randomUnitVector(random).map((x) => 0.7 * x);
      const length = Math.hypot(...aim.map((x, j) => x - from[j]));
      const way = aim.map((x, j) => (x - from[j]) / length);
      const t = fields.march(k, from[0], from[1], from[2], way[0], way[1], way[2], 0, Infinity);
      const place = (s: number): [number, number, number] => [
        from[0] + s * way[0],
        from[1] + s * way[1],
        from[2] + s * way[2],
      ];
      if (t < 0) continue;
      met++;
      expect(Math.abs(bound(...place(t)))).toBeLessThan(1e-4);
      for (let j = 0; j < 100; j++) expect(bound(...place((t * j) / 100))).toBeGreaterThan(-1e-9);
    }
    expect(met).toBeGreaterThan(60);
  });
  it('a white room is white in a form with many corners, within 1 %', () => {
    const mesh = { ...ball(1, 4), field: forms[5] };
    const picture = pictureOf([{ mesh, surface: { roughness: 0.5 } }], [white], { focalLength: 100 });
    for (const c of meanOf(withSky(picture), 128, { bounces: bouncesOf(64) }).slice(0, 3))
      expect(Math.abs(c - 1)).toBeLessThan(0.01);
  });
});
