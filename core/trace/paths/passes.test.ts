import { describe, expect, it } from 'vitest';
import type { PictureAt } from '../../evaluate/picture-at';
import type { LightAt } from '../../scene/kind';
import { hexToDisplay, displayToLight } from '../../maths/srgb';
import type { Mesh } from '../../shape/mesh';
import { copyColour } from '../scene/copy-colour';
import { Exposure } from './exposure';
import { ball, pictureOf, settings, square, white } from '../fixture';
import { motionPass } from './motion-vectors';
import { PassBuffer } from './passes';
import { SUMS } from './tile-result';

const size = { ...settings, width: 24, height: 24, passes: true };
const all = { x: 0, y: 0, width: 24, height: 24 };
const lamp = { colour: [1, 1, 1] as const, shadow: true };
const lights = [
  { type: 'area', radiance: 3, at: [0, 3, 1], target: [0, 0, 0], width: 1, height: 1, turn: 0, seen: false, ...lamp },
  { type: 'ball', intensity: 6, at: [-2, 1, 2], radius: 0.2, ...lamp },
  white,
] as unknown as LightAt[];
const glow = { emissiveColor: '#FF8000', emissiveStrength: 0.5 };

/** A ball before a wall that glows, seen from 4 m off. */
const scene = () =>
  pictureOf(
    [
      { mesh: ball(0.8, 40), surface: { baseColor: '#3366CC', roughness: 0.4 } },
      { mesh: square(0.9, -1), surface: { baseColor: '#808080', ...glow } },
    ],
    lights,
    { focalLength: 70 },
  );

function traced(picture: PictureAt<Mesh>, samples = 16) {
  const worked = new Exposure([picture], size).traced(all, samples);
  const sheet = new PassBuffer(picture, 24, 24);
  sheet.put(all, worked);
  const passes = new Map(sheet.passes(['Ring', 'Ring']).map((p) => [p.name, p]));
  const at = (name: string, x: number, y: number) => {
    const { channels, values } = passes.get(name)!;
    return [...values.subarray(channels.length * (24 * y + x), channels.length * (24 * y + x + 1))];
  };
  return { worked, passes, at };
}

describe('passes', () => {
  const { worked, passes, at } = traced(scene());
  it('have names for layers: ribbons by theirs, none twice, lights by their kind', () => {
    expect([...passes.keys()]).toEqual([
      'albedo',
      'normal',
      'depth',
      'distance',
      'position',
      'own',
      'copy',
      'mask_Ring',
      'mask_Ring_2',
      'mask_ground',
      'light_area',
      'light_ball',
      'light_sky',
      'light_glow',
      'light_rest',
    ]);
  });
  it('of light add up to the picture', () => {
    const sources = [...passes.values()].filter((p) => p.name.startsWith('light_'));
    for (let i = 0; i < 24 * 24; i++)
      for (let k = 0; k < 3; k++) {
        const sum = sources.reduce((so, p) => so + p.values[3 * i + k], 0);
        expect(sum).toBeCloseTo((worked.sums[SUMS * i + k] + worked.sums[SUMS * i + 6 + k]) / 16, 4);
      }
    // And each of them is there.
    for (const p of sources) if (p.name !== 'light_rest') expect(Math.max(...p.values), p.name).toBeGreaterThan(0.01);
  });
  it('of ribbons add up to how much is covered', () => {
    const masks = [...passes.values()].filter((p) => p.name.startsWith('mask_'));
    for (let i = 0; i < 24 * 24; i++)
      expect(masks.reduce((so, p) => so + p.values[i], 0)).toBeCloseTo(worked.sums[SUMS * i + 3] / 16, 6);
    expect(at('mask_Ring', 12, 12)).toEqual([1]);
    expect(at('mask_Ring_2', 12, 12)).toEqual([0]);
    expect(at('mask_Ring_2', 4, 4)).toEqual([1]);
  });
  it('tell colour, normal, place, distance and own light of what is met first', () => {
    const blue = hexToDisplay('#3366CC').map(displayToLight);
    at('albedo', 12, 12).forEach((c, k) => expect(c).toBeCloseTo(blue[k], 5));
    const [x, y, z] = at('position', 12, 12);
    expect(Math.hypot(x, y, z)).toBeCloseTo(0.8, 1.7);
    // A normal of a ball goes the way of its place.
    at('normal', 12, 12).forEach((n, k) => expect(n).toBeCloseTo([x, y, z][k] / Math.hypot(x, y, z), 1.5));
    expect(at('distance', 12, 12)[0]).toBeCloseTo(3.2, 1.5);
    // Square to the picture, depth is that of the place, wherever in the picture it is seen; behind everything it is far.
    for (const [px, py] of [
      [12, 12],
      [4, 4],
      [20, 6],
    ])
      expect(at('depth', px, py)[0]).toBeCloseTo(4 - at('position', px, py)[2], 4);
    expect(at('distance', 4, 4)[0]).toBeGreaterThan(at('depth', 4, 4)[0] + 0.001);
    expect(at('own', 12, 12)).toEqual([0, 0, 0]);
    const orange = hexToDisplay('#FF8000').map((c) => 0.5 * displayToLight(c));
    at('own', 4, 4).forEach((c, k) => expect(c).toBeCloseTo(orange[k], 5));
    expect(at('position', 4, 4)[2]).toBeCloseTo(-1, 5);
  });
  it('give every copy a colour of its own, in shares where copies share a pixel', () => {
    // Two squares of 0.5 m side by side, met at x = 0: of 24 pixels over 1.2 m the outer two are empty on each side.
    const one = square(0.25);
    const at = [-0.25, 0.25].flatMap((x) => [1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1, 0, x, 0, 0, 1]);
    const order = Float32Array.of(0, 1);
    const copies = { sources: [one], source: new Uint16Array(2), matrices: Float32Array.from(at), order, places: 2 };
    const mesh = { ...one, copies: { ...copies, ids: Uint32Array.of(7, 8) } };
    const pair = traced(pictureOf([{ mesh: square(0.1, -50) }, { mesh }], [], { focalLength: 120 }), 64);
    pair.at('copy', 6, 12).forEach((c, k) => expect(c).toBeCloseTo(copyColour(1, 7)[k], 6));
    pair.at('copy', 17, 12).forEach((c, k) => expect(c).toBeCloseTo(copyColour(1, 8)[k], 6));
    expect(pair.at('copy', 0, 12)).toEqual([0, 0, 0]);
    // Nothing is there: that is far, and not near.
    expect([pair.at('depth', 0, 12)[0], pair.at('distance', 0, 12)[0]]).toEqual([1e10, 1e10].map(Math.fround));
    // All of them together cover what they cover: 1 m × 0.5 m of 1.2 m × 1.2 m.
    const sum = (name: string) => pair.passes.get(name)!.values.reduce((so, v) => so + v, 0);
    expect(sum('mask_Ring_2') / 576).toBeCloseTo(0.5 / 1.44, 2);
    const half = (k: number) => (copyColour(1, 7)[k] + copyColour(1, 8)[k]) / 2;
    const { values } = pair.passes.get('copy')!;
    [0, 1, 2].forEach((k) => {
      const mean = values.filter((_, i) => i % 3 === k).reduce((so, v) => so + v, 0) / 576;
      expect(mean).toBeCloseTo(half(k) * (0.5 / 1.44), 2);
    });
  });
  it('tell the distance of a leaning plane as it is worked out', () => {
    // z = x through the middle, seen from 4 m off with rays side by side 36/400 · 4 m over all: far = 4 − x.
    const plane = square(3);
    const leant = { ...plane, positions: plane.positions.map((p, i, all) => (i % 3 === 2 ? all[i - 2] : p)) };
    const flat = traced(pictureOf([{ mesh: leant }], [], { parallel: 1.2 }), 64);
    for (const x of [0, 5, 12, 20, 23]) {
      const [depth] = flat.at('distance', x, 9);
      expect(flat.at('depth', x, 9)[0]).toBeCloseTo(depth, 4);
      // Samples of a pixel lie about its middle by chance; they are 0.05 m across.
      expect(Math.abs(depth - (4 - (1.2 * (x + 0.5 - 12)) / 24))).toBeLessThan(0.006);
    }
  });
  it('are not there where they were not asked for', () => {
    const plain = new Exposure([scene()], { ...size, passes: false }).traced(all, 1);
    expect(plain.passes).toBeUndefined();
    expect(() => new PassBuffer(scene(), 24, 24).put(all, plain)).toThrow('without passes');
  });
});

describe('the pass of motion', () => {
  const wall = (by: readonly [number, number, number]) => {
    const mesh = square(5);
    return { ...mesh, positions: mesh.positions.map((p, i) => p + by[i % 3]) };
  };
  /** A pixel of what is 4 m off: 36 mm of film behind 72 mm of lens show 2 m in 24 pixels. */
  const pixel = 2 / 24;
  const of = (mesh: Mesh, view = {}) => pictureOf([{ mesh }], [], { focalLength: 72, ...view });
  const at = (now: PictureAt<Mesh>, then: PictureAt<Mesh>) => [
    ...motionPass(now, then, size).values.subarray(2 * (24 * 12 + 12), 2 * (24 * 12 + 13)),
  ];
  it('is how many pixels a place goes, to the right and down', () => {
    const [x, y] = at(of(wall([0, 0, 0])), of(wall([3 * pixel, 2 * pixel, 0])));
    expect(x).toBeCloseTo(3, 3);
    expect(y).toBeCloseTo(-2, 3);
  });
  it('knows that the camera moves, and that a form turns about its middle', () => {
    const moved = of(wall([0, 0, 0]), { position: [pixel, 0, 4], target: [pixel, 0, 0] });
    expect(at(of(wall([0, 0, 0])), moved)[0]).toBeCloseTo(-1, 3);
    const turned = wall([0, 0, 0]);
    const quarter = {
      ...turned,
      positions: turned.positions.map((_, i, p) => (i % 3 === 0 ? -p[i + 1] : i % 3 === 1 ? p[i - 1] : p[i])),
    };
    // Half a pixel right of and below the middle goes to half a pixel right of and above it.
    const [x, y] = at(of(turned), of(quarter));
    expect(x).toBeCloseTo(0, 3);
    expect(y).toBeCloseTo(-1, 3);
  });
  it('is that of the form where wires and dots of its ribbon stand there, too', () => {
    const wired = (by: readonly [number, number, number]) =>
      pictureOf(
        [
          {
            mesh: wall(by),
            surface: {
              wires: { width: 1, colour: '#FFFFFF', strength: 1, hidden: 1, faces: 'shown' },
              dots: { pixels: 2, colour: '#FFFFFF', strength: 1, faces: 'shown' },
            },
          },
        ],
        [],
        { focalLength: 72 },
      );
    expect(at(wired([0, 0, 0]), wired([3 * pixel, 0, 0]))[0]).toBeCloseTo(3, 3);
  });
  it('is nothing where there are other triangles then, or nothing', () => {
    expect(at(of(wall([0, 0, 0])), of(ball()))).toEqual([0, 0]);
    expect(at(of(wall([0, 0, 90])), of(wall([1, 0, 90])))).toEqual([0, 0]);
  });
});
