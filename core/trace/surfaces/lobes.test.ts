import { describe, expect, it } from 'vitest';
import { filmColour } from '../../finish/film';
import type { Surface } from '../../finish/surface';
import { lightShownAs } from '../../scene/view-transform';
import { ball, meanOf, pictureOf, settings, square, white, withSky } from '../fixture';
import { TraceMemory } from '../memory/memory';
import { bouncesOf, Tracer } from '../paths/tracer';
import { SUMS } from '../paths/tile-result';

const lamp = { colour: [1, 1, 1], shadow: true } as const;
const matt = { roughness: 1, specular: 0 };

describe('parts of a finish in true light', () => {
  const furnaces: readonly (readonly [string, Partial<Surface>])[] = [
    ['velvet', { sheen: 1, sheenRoughness: 0.4 }],
    ['peach skin over lacquer', { sheen: 0.6, sheenRoughness: 0.2, clearcoat: 1, roughness: 0.5 }],
    ['a soap film', { transmission: 1, roughness: 0.02, iridescence: 1, iridescenceIor: 1.33 }],
    [
      'a film on glass',
      {
        transmission: 1,
        thickness: 1,
        roughness: 0.02,
        iridescence: 1,
        iridescenceThickness: 550,
        iridescenceIor: 1.9,
      },
    ],
    ['glass that parts colours', { transmission: 1, thickness: 1, roughness: 0.02, dispersion: 1, ior: 1.7 }],
  ];
  it.each(furnaces)('a white room is white in %s, within 0.5 %%', (_, surface) => {
    const picture = pictureOf([{ mesh: ball(1, 96), surface }], [white], { focalLength: 100 });
    for (const c of meanOf(withSky(picture), 512, { bounces: bouncesOf(64) }).slice(0, 3))
      expect(Math.abs(c - 1)).toBeLessThan(0.005);
  });
  it('glass that parts colours has no grain in colour where all around is white', () => {
    const surface = { transmission: 1, thickness: 1, roughness: 0.02, dispersion: 5, ior: 1.7 };
    const tracer = new Tracer();
    tracer.load(withSky(pictureOf([{ mesh: ball(1, 96), surface }], [white], { focalLength: 100 })), {
      ...settings,
      bounces: bouncesOf(64),
    });
    const sums = tracer.samples({ x: 0, y: 0, width: settings.width, height: settings.height }, 0, 4);
    let grey = 0;
    for (let i = 0; i < sums.length; i += SUMS) {
      const [r, g, b] = sums.subarray(i, i + 3);
      if (r > 3.5 && Math.abs(r - g) < 0.2 && Math.abs(b - g) < 0.2) grey++;
    }
    // A few paths of one channel end before those of the others.
    expect(grey).toBeGreaterThan((0.8 * sums.length) / SUMS);
  });
  it('brushed metal makes no light and loses at most a tenth, where facets lie as unlike as can be', () => {
    const brushed = {
      metalness: 1,
      roughness: 0.3,
      anisotropy: 0.8,
      features: ['brushed'],
      grooves: { way: 'round', axis: 'y' },
    } as const;
    const [c] = meanOf(
      withSky(pictureOf([{ mesh: ball(1, 96), surface: brushed }], [white], { focalLength: 100 })),
      512,
    );
    expect(c).toBeLessThan(1.005);
    expect(c).toBeGreaterThan(0.9);
  });
  it('colours of a thin film are those of Airy’s sum with the matching functions of CIE 1931', () => {
    const { run } = new TraceMemory();
    for (const [film, body, nm] of [
      [1.33, 1.5, 250],
      [1.33, 1.0, 380],
      [1.9, 1.5, 600],
      [1.4, 2.42, 900],
      [2, 1.5, 1400],
      [1.5, 20, 300],
      [1.33, 1.5, 0],
    ])
      for (const cosine of [1, 0.7, 0.3, 0.1]) {
        const share = ((body - 1) / (body + 1)) ** 2;
        run.thinFilm(cosine, film, nm, share, share, share);
        const got = [run.filmRed.value, run.filmGreen.value, run.filmBlue.value];
        filmColour(film, body, nm, cosine).forEach((c, k) =>
          expect(Math.abs(got[k] - Math.max(0, c))).toBeLessThan(0.001),
        );
      }
  });
  it('grooves draw a highlight out: it is wider along one way of the surface than along the other', () => {
    const metal = { metalness: 1, roughness: 0.25 };
    const seen = (anisotropy: number, from: [number, number, number]) =>
      meanOf(
        pictureOf(
          [
            {
              mesh: square(20),
              surface: { ...metal, anisotropy, features: ['brushed'], grooves: { way: 'along', axis: 'x' } },
            },
          ],
          [{ type: 'sun', irradiance: 1, from, angle: 0, ...lamp }],
          { focalLength: 6000 },
        ),
        64,
      )[0];
    const [c, s] = [Math.cos(0.7), Math.sin(0.7)];
    expect(seen(0, [s, 0, c])).toBeCloseTo(seen(0, [0, s, c]), 4);
    expect(seen(0.8, [s, 0, c]) / seen(0.8, [0, s, c])).toBeGreaterThan(20);
  });
});

describe('bodies of glass in each other', () => {
  const glass = (ior: number, distance: number) => ({
    transmission: 1,
    thickness: 1,
    ior,
    roughness: 0,
    attenuationColor: '#808080',
    attenuationDistance: distance,
  });
  const grey = ((0x80 / 255 + 0.055) / 1.055) ** 2.4;
  const through = (...balls: readonly (readonly [number, object])[]) =>
    meanOf(
      withSky(
        pictureOf(
          balls.map(([radius, surface]) => ({ mesh: ball(radius, 96), surface })),
          [white],
          { focalLength: 6000 },
        ),
      ),
      64,
    )[0];
  it('absorb where they are: the denser one takes the place of the other', () => {
    // Two metres through the outer ball, one of them through the inner.
    expect(through([1, glass(1.0001, 1)], [0.5, glass(1.0002, Infinity)])).toBeCloseTo(grey, 2);
    // The inner one is lighter, and so is not there.
    expect(through([1, glass(1.0002, 1)], [0.5, glass(1.0001, Infinity)])).toBeCloseTo(grey ** 2, 2);
  });
  it('mirror by the ratio of their indices: where that is 1, what is behind is seen as through the outer one', () => {
    const seen = (...balls: readonly (readonly [number, object])[]) => {
      const shapes = balls.map(([radius, surface]) => ({ mesh: ball(radius, 96), surface }));
      const picture = pictureOf(shapes, [], { focalLength: 6000 });
      const backdrop = { type: 'colour', colour: '#FFFFFF' } as const;
      return meanOf({ ...picture, scene: { ...picture.scene, backdrop } }, 512)[0] / meanOf(picture, 1)[3];
    };
    const [once, twice] = [
      seen([1, glass(1.6, Infinity)]),
      seen([1, glass(1.6, Infinity)], [0.5, glass(1.6, Infinity)]),
    ];
    const mirror = ((1.6 - 1) / (1.6 + 1)) ** 2;
    const [behind] = lightShownAs([1, 1, 1]);
    expect(once / behind).toBeCloseTo((1 - mirror) ** 2, 1.7);
    expect(twice / once).toBeCloseTo(1, 1.7);
    // Where the inner one is of another index, its faces mirror, too.
    expect(seen([1, glass(1.6, Infinity)], [0.5, glass(3, Infinity)]) / once).toBeLessThan(0.9);
  });
  it('that scatter in part, too, are left again, whatever shadow rays have passed meanwhile', () => {
    const half = { mesh: ball(0.5, 48), surface: { ...glass(1.2, 2), transmission: 0.5 } };
    // What still took itself for glass would lose nearly all on its way to it.
    const wall = { mesh: square(50, -6), surface: matt };
    // Both hang behind the camera: a face that faintly glows, and a veil before it.
    const glow = {
      mesh: square(0.2, 6),
      surface: { ...matt, baseColor: '#000000', emissiveColor: '#FFFFFF', emissiveStrength: 1e-4 },
    };
    const veil = { mesh: square(0.3, 5), surface: { ...matt, opacity: 0.5 } };
    const seen = (...more: (typeof glow | typeof veil)[]) =>
      meanOf(pictureOf([half, wall, ...more], [white], { focalLength: 600 }), 1024)[0];
    const alone = seen();
    expect(seen(glow) / alone).toBeCloseTo(1, 1.8);
    expect(seen(glow, veil) / alone).toBeCloseTo(1, 1.8);
  });
});

describe('surfaces that give light', () => {
  it('light a matt patch as a square does, by Lambert’s sum over its edges (Photometria, 1760)', () => {
    const a = 0.6 / 1.5;
    const root = Math.sqrt(1 + a * a);
    const exact = (4 / Math.PI) * (a / root) * Math.atan(a / root);
    const shining = { emissiveColor: '#FFFFFF', emissiveStrength: 1, baseColor: '#000000', specular: 0 };
    const picture = pictureOf(
      [
        { mesh: square(20), surface: matt },
        { mesh: square(0.6, 1.5), surface: shining },
      ],
      [],
      { focalLength: 6000, position: [0, 0, 1.2] },
    );
    const [c] = meanOf(picture, 256);
    expect(Math.abs(c - exact) / exact).toBeLessThan(0.01);
  });
});

describe('air', () => {
  const air = { colour: '#000000', extinction: 0.3, height: 0, ground: 0 };
  it('of fog leaves e^{−σd} of the light of a surface', () => {
    const picture = pictureOf(
      [{ mesh: square(20), surface: { ...matt, emissiveColor: '#FFFFFF', emissiveStrength: 1 } }],
      [],
      {
        focalLength: 6000,
      },
    );
    const foggy = { ...picture, scene: { ...picture.scene, air: [{ ...air, type: 'fog', begins: 1 } as const] } };
    expect(meanOf(foggy, 16)[0]).toBeCloseTo(Math.exp(-0.3 * 3), 4);
  });
  it('is lit by a lamp as single scattering has it, by quadrature along the ray', () => {
    const [intensity, side, reach] = [5, 0.8, 3];
    const picture = pictureOf([], [{ type: 'ball', intensity, at: [side, 0, 0], radius: 0, ...lamp }], {
      focalLength: 6000,
    });
    const haze = { ...air, colour: '#FFFFFF', type: 'haze', forward: 0.4, reach } as const;
    // With nothing there, it fills a ball about the middle.
    const [c] = meanOf({ ...picture, scene: { ...picture.scene, air: [haze] } }, 8192);
    let sum = 0;
    const steps = 20_000;
    for (let i = 0; i < steps; i++) {
      const t = (2 * reach * (i + 0.5)) / steps;
      const z = reach - t;
      const d2 = side * side + z * z;
      // The cosine between the way from the lamp and the way to the eye, by which Henyey and Greenstein go.
      const cosine = z / Math.sqrt(d2);
      const g = 0.4;
      const phase = (1 - g * g) / (4 * Math.PI * (1 + g * g - 2 * g * cosine) ** 1.5);
      // What is turned comes through the same air twice: from the lamp, and on to the eye.
      const left = Math.exp(-0.3 * (Math.sqrt(d2) + t));
      sum += ((0.3 * left * intensity * phase) / d2) * ((2 * reach) / steps);
    }
    expect(Math.abs(c - sum) / sum).toBeLessThan(0.02);
  });
  it('is looked for after so many bounces and no more: not at all in a mirror, and what a mirror shows of it once', () => {
    const light = [{ type: 'ball', intensity: 5, at: [0.8, 0, 0.8], radius: 0, ...lamp }] as const;
    const haze = { ...air, colour: '#FFFFFF', type: 'haze', forward: 0, reach: 2 } as const;
    const seen = (surface: Partial<Surface>, after: number) => {
      const picture = pictureOf([{ mesh: square(20), surface }], light, { focalLength: 6000 });
      const hazy = { ...picture, scene: { ...picture.scene, air: [haze] } };
      return meanOf(hazy, 2048, { bounces: { ...bouncesOf(8), air: after } })[0];
    };
    const mirror = { metalness: 1, roughness: 0.01, baseColor: '#FFFFFF' };
    const straight = seen({ ...matt, baseColor: '#000000' }, 64);
    expect(straight).toBeGreaterThan(0.01);
    expect(seen(mirror, 0) / straight).toBeCloseTo(1, 1);
    // There and back it is as long a way through the same air, and less of its light is left.
    const whole = seen(mirror, 1) / straight;
    expect(whole).toBeGreaterThan(1.3);
    expect(whole).toBeLessThan(2);
    expect(seen(mirror, 64) / straight).toBeCloseTo(whole, 6);
  });
});
