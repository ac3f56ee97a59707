import { describe, expect, it } from 'vitest';
import { displayToLight, hexToDisplay } from '../maths/srgb';
import type { LightAt } from '../scene/kind';
import { meshOf } from '../shape/builder';
import { uniformConnectivity, type Mesh } from '../shape/mesh';
import { ball, meanOf, pictureOf, settings, square, white, withSky } from './fixture';
import { radiosity } from '../fixtures/radiosity';
import { bouncesOf, Tracer } from './paths/tracer';
import { COUNT, SUMS } from './paths/tile-result';

const lamp = { colour: [1, 1, 1] as const, shadow: true };
const matt = { roughness: 1, specular: 0 };
const grey = (light: number) => {
  const shown = light <= 0.0031308 ? 12.92 * light : 1.055 * light ** (1 / 2.4) - 0.055;
  return `#${Math.round(255 * shown)
    .toString(16)
    .padStart(2, '0')
    .repeat(3)}`;
};
const albedoOf = (hex: string) => displayToLight(hexToDisplay(hex)[0]);

/** A rectangle by its corner and its two edges; its face looks along the cross product of both. */
function rectangle(corner: readonly number[], a: readonly number[], b: readonly number[]): Mesh {
  const at = (s: number, t: number) => corner.map((c, k) => c + s * a[k] + t * b[k]);
  return meshOf(
    uniformConnectivity(4, 4, Uint32Array.of(0, 1, 2, 3)),
    Float32Array.from([...at(0, 0), ...at(1, 0), ...at(1, 1), ...at(0, 1)]),
  );
}

describe('light between surfaces', () => {
  it('two squares that face each other get what the handbook’s configuration factor says', () => {
    // J. R. Howell, A Catalog of Radiation Heat Transfer Configuration Factors, C-11, for x = y = 1.
    const [X, Y] = [1, 1];
    const [a, b] = [Math.sqrt(1 + X * X), Math.sqrt(1 + Y * Y)];
    const factor =
      (2 / (Math.PI * X * Y)) *
      (Math.log(Math.sqrt(((1 + X * X) * (1 + Y * Y)) / (1 + X * X + Y * Y))) +
        X * b * Math.atan(X / b) +
        Y * a * Math.atan(Y / a) -
        X * Math.atan(X) -
        Y * Math.atan(Y));
    // Unit squares a metre apart are 0.1998 in the tables.
    expect(factor).toBeCloseTo(0.1998, 4);
    const colour = grey(0.6);
    const picture = pictureOf(
      [
        { mesh: square(0.5), surface: { ...matt, baseColor: colour } },
        {
          // Behind the eye, looking back.
          mesh: rectangle([0.5, -0.5, 1], [-1, 0, 0], [0, 1, 0]),
          surface: { ...matt, baseColor: '#000000', emissiveColor: '#FFFFFF', emissiveStrength: 1 },
        },
      ],
      [],
      // A camera without perspective just before the first, that sees it whole and nothing else.
      { position: [0, 0, 0.01], parallel: 1, focalLength: 36 },
    );
    const mean = meanOf(picture, 256, { width: 16, height: 16, bounces: bouncesOf(2) });
    expect(mean[3]).toBe(1);
    expect(Math.abs(mean[0] / (albedoOf(colour) * factor) - 1)).toBeLessThan(0.005);
  });

  it('a cube with a red and a blue wall is as bright everywhere as radiosity solves it', () => {
    // Such a cube as C. Goral et al. have (“Modeling the interaction of light between diffuse surfaces”, 1984).
    const floorColour = grey(0.5);
    const walls = [
      { at: [-1, -1, -1], a: [0, 0, 2], b: [2, 0, 0], colour: [floorColour, floorColour, floorColour], glow: 0 },
      { at: [-1, 1, -1], a: [2, 0, 0], b: [0, 0, 2], colour: ['#000000', '#000000', '#000000'], glow: 1 },
      { at: [-1, -1, -1], a: [0, 2, 0], b: [0, 0, 2], colour: [grey(0.6), grey(0.1), grey(0.1)], glow: 0 },
      { at: [1, -1, -1], a: [0, 0, 2], b: [0, 2, 0], colour: [grey(0.1), grey(0.1), grey(0.6)], glow: 0 },
      { at: [-1, -1, -1], a: [2, 0, 0], b: [0, 2, 0], colour: [floorColour, floorColour, floorColour], glow: 0 },
      { at: [-1, -1, 1], a: [0, 2, 0], b: [2, 0, 0], colour: [floorColour, floorColour, floorColour], glow: 0 },
    ];
    const hex = (c: readonly string[]) => `#${c[0].slice(1, 3)}${c[1].slice(3, 5)}${c[2].slice(5, 7)}`;
    const plus = (p: readonly number[], q: readonly number[]) => p.map((x, k) => x + q[k]);
    const solved = radiosity(
      walls.map(({ at, a, b, colour, glow }) => ({
        corners: [at, plus(at, a), plus(plus(at, a), b), plus(at, b)],
        albedo: colour.map(albedoOf),
        glow,
        patches: 8,
      })),
    );
    const shapes = walls.map((w) => ({
      mesh: rectangle(w.at, w.a, w.b),
      surface: { ...matt, baseColor: hex(w.colour), emissiveColor: '#FFFFFF', emissiveStrength: w.glow },
    }));
    const seen = (target: readonly [number, number, number]) =>
      meanOf(pictureOf(shapes, [], { position: [0, 0.1, 0], target, focalLength: 1500 }), 1024, {
        bounces: bouncesOf(24),
      });
    const [below, left, right, behind] = [0, 2, 3, 4];
    const places: readonly (readonly [number, readonly [number, number, number]])[] = [
      [below, [0.125, -1, 0.125]],
      [below, [-0.875, -1, 0.125]],
      [below, [0.875, -1, 0.125]],
      [left, [-1, 0.125, 0.125]],
      [right, [1, -0.625, 0.125]],
      [behind, [0.125, -0.125, -1]],
    ];
    for (const [wall, p] of places) {
      const [mean, own] = [seen(p), solved(wall, p)];
      for (let k = 0; k < 3; k++) expect(Math.abs(mean[k] / own[k] - 1), `${p}: ${k}`).toBeLessThan(0.02);
    }
  });
});

describe('samples', () => {
  const corner = (lights: readonly LightAt[], surface: object) =>
    pictureOf(
      [
        { mesh: rectangle([-2, -1, 2], [4, 0, 0], [0, 0, -4]), surface: { ...matt, ...surface } },
        { mesh: rectangle([-2, -1, -1], [4, 0, 0], [0, 3, 0]), surface: { ...matt, ...surface } },
        {
          mesh: rectangle([-1.2, 1.6, -0.4], [0.8, 0, 0], [0, 0, 0.8]),
          surface: { baseColor: '#000000', emissiveColor: '#FFFFFF', emissiveStrength: 2 },
        },
      ],
      lights,
      { focalLength: 40 },
    );
  const lights = [
    {
      type: 'area',
      radiance: 4,
      at: [1.2, 1.5, 1],
      target: [0, -1, 0],
      width: 1,
      height: 0.6,
      turn: 0,
      seen: false,
      ...lamp,
    },
    { type: 'ball', intensity: 3, at: [-1, 0.4, 0.6], radius: 0.3, ...lamp },
    white,
  ] as unknown as LightAt[];

  it.each([
    ['matt', { roughness: 1 }],
    ['rough metal', { metalness: 1, roughness: 0.5, specular: 1 }],
  ])('come to one mean, whether lamps are asked, met by chance or both, on what is %s', (_, surface) => {
    const mean = (how: 0 | 1 | 2) => {
      const tracer = new Tracer();
      tracer.load(withSky(corner(lights, surface)), { ...settings, width: 16, height: 16, bounces: bouncesOf(3) });
      tracer.setStrategies(how);
      const sums = tracer.samples({ x: 0, y: 0, width: 16, height: 16 }, 0, 1024);
      let sum = 0;
      for (let i = 0; i < sums.length; i += SUMS) sum += sums[i] / sums[i + COUNT];
      return sum / 256;
    };
    const both = mean(0);
    expect(Math.abs(mean(1) / both - 1)).toBeLessThan(0.01);
    expect(Math.abs(mean(2) / both - 1)).toBeLessThan(0.01);
  });

  it('err the less, the more there are: at least as the root of their number', () => {
    const picture = withSky(corner(lights, {}));
    const of = (samples: number, grain: number) => {
      const tracer = new Tracer();
      tracer.load(picture, { ...settings, width: 16, height: 16, bounces: bouncesOf(3), seed: grain });
      const sums = tracer.samples({ x: 0, y: 0, width: 16, height: 16 }, 0, samples);
      return Float64Array.from({ length: 256 }, (_, i) => sums[SUMS * i] / samples);
    };
    const right = of(4096, 99);
    const error = (samples: number) => {
      const squares = [1, 2, 3].flatMap((grain) => [...of(samples, grain)].map((x, i) => (x - right[i]) ** 2));
      return Math.sqrt(squares.reduce((a, b) => a + b, 0) / squares.length);
    };
    const [few, more, many] = [error(4), error(32), error(256)];
    expect(few / more).toBeGreaterThan(0.95 * Math.sqrt(8));
    expect(more / many).toBeGreaterThan(0.95 * Math.sqrt(8));
  });

  it('tell their own error: the variance that is measured is that of means of other grain', () => {
    const picture = withSky(corner(lights, {}));
    const samples = 64;
    const runs = Array.from({ length: 24 }, (_, grain) => {
      const tracer = new Tracer();
      tracer.load(picture, { ...settings, width: 8, height: 8, bounces: bouncesOf(2), seed: grain });
      return tracer.samples({ x: 0, y: 0, width: 8, height: 8 }, 0, samples);
    });
    let [told, found] = [0, 0];
    for (let i = 0; i < 64; i++) {
      const bright = (s: Float64Array) =>
        (0.2126 * s[SUMS * i] + 0.7152 * s[SUMS * i + 1] + 0.0722 * s[SUMS * i + 2]) / samples;
      const means = runs.map(bright);
      const mean = means.reduce((a, b) => a + b) / means.length;
      found += means.reduce((sum, m) => sum + (m - mean) ** 2, 0) / (means.length - 1);
      told += runs.reduce((sum, s) => sum + s[SUMS * i + 4] / samples - bright(s) ** 2, 0) / runs.length / samples;
    }
    // Samples that are spread err less than their variance tells, and never more.
    expect(found / told).toBeLessThan(1.05);
    expect(found / told).toBeGreaterThan(0.02);
  });
});

describe('gloss', () => {
  /** Directional albedo by quadrature of the published formulas: GGX with Smith’s shadowing (B. Walter et al., 2007; E. Heitz, 2014). */
  function albedo(roughness: number, cosine: number, f0: number, f90: number): number {
    const a2 = roughness ** 4;
    const o = [Math.sqrt(1 - cosine * cosine), 0, cosine];
    const hidden = (z: number) => (-1 + Math.sqrt(1 + (a2 * (1 - z * z)) / (z * z))) / 2;
    let sum = 0;
    const [rows, columns] = [400, 400];
    for (let i = 0; i < rows; i++)
      for (let j = 0; j < columns; j++) {
        const z = (i + 0.5) / rows;
        const r = Math.sqrt(1 - z * z);
        const turn = (Math.PI * (j + 0.5)) / columns;
        const l = [r * Math.cos(turn), r * Math.sin(turn), z];
        const h = l.map((x, k) => x + o[k]);
        const length = Math.hypot(...h);
        const nh = h[2] / length;
        const vh = (h[0] * o[0] + h[2] * o[2]) / length;
        const d = a2 / (Math.PI * (nh * nh * (a2 - 1) + 1) ** 2);
        const g = 1 / (1 + hidden(cosine) + hidden(z));
        const f = f0 + (f90 - f0) * (1 - vh) ** 5;
        // The half of all directions with the other half its mirror image.
        sum += ((d * g * f) / (4 * cosine)) * 2 * (Math.PI / columns) * (1 / rows);
      }
    return sum;
  }
  it.each([
    [0.35, 1],
    [0.35, 0.5],
    [0.6, 0.8],
    [0.6, 0.3],
    [0.9, 0.6],
  ])(
    'of roughness %f seen at a cosine of %f gives back what quadrature of the formulas has, within 1 %%',
    (roughness, cosine) => {
      const colour = grey(0.5);
      const f0 = albedoOf(colour);
      const whole = albedo(roughness, cosine, 1, 1);
      // With what facets give each other (E. Turquin, “Practical multiple scattering compensation”, 2019).
      const exact = albedo(roughness, cosine, f0, 1) * (1 + f0 * (1 / whole - 1));
      const far = 10;
      const view = {
        position: [far * Math.sqrt(1 - cosine * cosine), 0, far * cosine] as const,
        focalLength: 4000,
      };
      const surface = { metalness: 1, roughness, baseColor: colour };
      const [mean] = meanOf(withSky(pictureOf([{ mesh: square(40), surface }], [white], view)), 512);
      expect(Math.abs(mean / exact - 1)).toBeLessThan(0.01);
    },
  );
});

describe('Snell', () => {
  it('light that leaves glass flat at an angle comes out as steep as it went in, moved by the thickness', () => {
    // A slab of index 1.5, 1 m thick, at 45°: the ray leaves d·sin(45° − r)/cos r beside, where sin r = sin 45° / 1.5.
    const glass = { transmission: 1, thickness: 1, ior: 1.5, roughness: 0 };
    const slab = [rectangle([-9, -9, 0.5], [18, 0, 0], [0, 18, 0]), rectangle([-9, -9, -0.5], [0, 18, 0], [18, 0, 0])];
    const both = meshOf(
      uniformConnectivity(8, 4, Uint32Array.of(0, 1, 2, 3, 4, 5, 6, 7)),
      Float32Array.from(slab.flatMap((m) => [...m.positions])),
    );
    const inside = Math.asin(Math.SQRT1_2 / 1.5);
    const beside = Math.sin(Math.PI / 4 - inside) / Math.cos(inside);
    // Behind the slab a strip that glows stands where the ray must pass.
    const [position, target] = [[-4, 0, 4] as const, [0, 0, 0] as const];
    const at = (offset: number) => {
      // Along the ray 3 m beyond the middle, moved square to it.
      const [x, z] = [3 * Math.SQRT1_2 - offset * Math.SQRT1_2, -3 * Math.SQRT1_2 - offset * Math.SQRT1_2];
      const strip = rectangle([x - 0.03, -1, z - 0.03], [0.06, 0, 0.06], [0, 2, 0]);
      const shine = { baseColor: '#000000', emissiveColor: '#FFFFFF', emissiveStrength: 1 };
      return meanOf(
        pictureOf(
          [
            { mesh: both, surface: glass },
            { mesh: strip, surface: shine },
          ],
          [],
          { position, target, focalLength: 20_000 },
        ),
        64,
      )[0];
    };
    expect(at(beside)).toBeGreaterThan(0.8);
    expect(at(0)).toBeLessThan(0.05);
    expect(at(-beside)).toBeLessThan(0.05);
  });
});

describe('mixtures in a white room', () => {
  it.each([0.1, 0.2, 0.3, 0.35, 0.4, 0.6, 0.8, 1])(
    'metal of roughness %f gives back what it gets, within 0.2 %%',
    (roughness) => {
      // Between a quarter and a half, few facets that are steep mirror light down to others: they are missed easily.
      const picture = pictureOf([{ mesh: ball(1, 96), surface: { metalness: 1, roughness } }], [white], {
        focalLength: 100,
      });
      const [mean] = meanOf(withSky(picture), 512, { bounces: bouncesOf(64) });
      expect(Math.abs(mean - 1)).toBeLessThan(0.002);
    },
  );
  it.each([
    ['lacquer over half metal', 0.005, { clearcoat: 0.7, clearcoatRoughness: 0.3, metalness: 0.4, roughness: 0.5 }],
    ['cloth over chalk', 0.005, { sheenColor: '#FFFFFF', sheenStrength: 0.8, sheenRoughness: 0.5, roughness: 0.9 }],
    [
      'half a rough glass under lacquer',
      0.005,
      { transmission: 0.5, thickness: 1, ior: 1.6, roughness: 0.2, clearcoat: 1 },
    ],
    ['glass as rough as can be', 0.005, { transmission: 1, thickness: 1, roughness: 1 }],
    ['rough crystal', 0.005, { transmission: 1, thickness: 1, ior: 2.4, roughness: 0.6 }],
    ['a rough wall of glass', 0.005, { transmission: 1, thickness: 0, roughness: 0.8 }],
    ['brushed glass', 0.005, { transmission: 1, thickness: 1, roughness: 0.3, anisotropy: 0.8 }],
    [
      'rough glass in a film',
      0.005,
      { transmission: 1, thickness: 1, roughness: 0.4, iridescence: 1, iridescenceIor: 1.4, iridescenceThickness: 380 },
    ],
    ['glass under lacquer', 0.005, { transmission: 1, thickness: 1, ior: 1.6, roughness: 0.05, clearcoat: 1 }],
    [
      'glass in velvet',
      0.005,
      {
        transmission: 0.8,
        thickness: 1,
        roughness: 0.1,
        sheenColor: '#FFFFFF',
        sheenStrength: 0.6,
        sheenRoughness: 0.4,
      },
    ],
    [
      'a film on metal',
      0.005,
      { iridescence: 1, iridescenceIor: 1.4, iridescenceThickness: 380, metalness: 1, roughness: 0.3 },
    ],
  ])('%s gives back what it gets, within %f', (_, within, surface) => {
    const picture = pictureOf([{ mesh: ball(1, 96), surface }], [white], { focalLength: 100 });
    const mean = meanOf(withSky(picture), 256, { bounces: bouncesOf(64) });
    for (const c of mean.slice(0, 3)) expect(Math.abs(c - 1)).toBeLessThan(within);
  });
});
