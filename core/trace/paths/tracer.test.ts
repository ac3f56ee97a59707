import { createHash } from 'node:crypto';
import { readFileSync } from 'node:fs';
import path from 'node:path';
import { BufferAttribute, BufferGeometry, DoubleSide, Ray, Vector3 } from 'three';
import { MeshBVH } from 'three-mesh-bvh';
import { describe, expect, it } from 'vitest';
import { makeReady } from '../../evaluate/assets';
import { MeshCache } from '../../evaluate/mesh-cache';
import { pictureAt } from '../../evaluate/picture-at';
import { evaluateRibbon } from '../../evaluate/ribbon';
import { linkPiece } from '../../piece/link';
import type { RibbonDoc } from '../../piece/piece';
import { readPiece, writePiece } from '../../piece/read';
import { randomSource, randomUnitVector } from '../../maths/random';
import { ball, camera, meanOf, needles, pictureOf, settings, square, white, withSky } from '../fixture';
import { Exposure, instantPictures } from './exposure';
import { REFERENCE, referencePicture } from '../reference';
import { REFERENCE_PIECE, referencePiece } from '../reference-piece';
import { tilesOf } from './tiles';
import { TraceMemory } from '../memory/memory';
import { bouncesOf, Tracer } from './tracer';
import { SUMS } from './tile-result';
import { drawTopologyOf } from '../../shape/drawable';

const lamp = { colour: [1, 1, 1] as const, shadow: true };
const metal = (roughness: number) => ({ metalness: 1, roughness, baseColor: '#FFFFFF' });

describe('what rays meet', () => {
  it.each([
    ['a ball', 1_000_000, 600_000, ball(1, 24)],
    ['long thin triangles, some of them nowhere', 50_000, 25_000, needles(1000, 4, 0.05)],
  ] as const)(
    'is what three-mesh-bvh says they meet, from all round and from within: %s, %i rays',
    (_, count, least, mesh) => {
      const tracer = new Tracer();
      tracer.load(pictureOf([{ mesh }], []), settings);
      const { positions } = mesh;
      const somewhere = (corner: number) => !Number.isNaN(positions[3 * corner + 1]);
      // What is nowhere it could not sort.
      const { triangles } = drawTopologyOf(mesh.connectivity);
      const there = triangles.filter((_, i) => [0, 1, 2].every((k) => somewhere(triangles[i - (i % 3) + k])));
      const geometry = new BufferGeometry();
      geometry.setAttribute('position', new BufferAttribute(positions, 3));
      geometry.setIndex(new BufferAttribute(there, 1));
      const bvh = new MeshBVH(geometry);
      const random = randomSource(5);
      const rays = new Float32Array(6 * count);
      for (let i = 0; i < count; i++) {
        const from = randomUnitVector(random);
        const to = randomUnitVector(random);
        for (let k = 0; k < 3; k++) {
          rays[6 * i + k] = from[k] * (i % 2 ? 0.5 : 3);
          rays[6 * i + 3 + k] = 1.1 * to[k] - rays[6 * i + k];
        }
      }
      const { far, which } = tracer.trace(rays);
      let [met, differ] = [0, 0];
      const ray = new Ray(new Vector3(), new Vector3());
      for (let i = 0; i < count; i++) {
        ray.origin.fromArray(rays, 6 * i);
        const length = ray.direction.fromArray(rays, 6 * i + 3).length();
        ray.direction.normalize();
        const other = bvh.raycastFirst(ray, DoubleSide);
        if (other) met++;
        if ((other !== null) !== which[2 * i] >= 0) differ++;
        else if (other && Math.abs(other.distance - far[i] * length) > 1e-4) differ++;
      }
      expect(met).toBeGreaterThan(least);
      // It reckons with twice as many digits: a ray along an outline may be let by.
      expect(differ).toBeLessThanOrEqual(2);
      // Whether there is anything is the same question.
      const any = tracer.trace(rays, true).which;
      let others = 0;
      for (let i = 0; i < count; i++) if (any[2 * i] >= 0 !== which[2 * i] >= 0) others++;
      expect(others).toBe(0);
    },
  );
});

describe('light that is known by formulas', () => {
  const furnaces: readonly (readonly [string, object])[] = [
    ['chalk', {}],
    ['gloss', { roughness: 0.3 }],
    ...[0.1, 0.4, 0.7, 1].map((r) => [`metal of roughness ${r}`, metal(r)] as const),
    ['half metal', { metalness: 0.5, roughness: 0.4 }],
    ['lacquer', { clearcoat: 1, clearcoatRoughness: 0.2 }],
    ['glass', { transmission: 1, thickness: 1, roughness: 0.02 }],
    ['thin glass', { transmission: 1, roughness: 0.02 }],
    ['a veil', { alpha: 0.5 }],
  ];
  it.each(furnaces)('a white room is white in %s, within 0.5 %%', (_, surface) => {
    const picture = pictureOf([{ mesh: ball(1, 96), surface }], [white], { focalLength: 100 });
    const mean = meanOf(withSky(picture), 256, { bounces: bouncesOf(64) });
    for (const c of mean.slice(0, 3)) expect(Math.abs(c - 1)).toBeLessThan(0.005);
  });
  it('a matt patch under a square, by Lambert’s sum over its edges (Photometria, 1760)', () => {
    const [up, half] = [1.5, 0.6];
    const a = half / up;
    const root = Math.sqrt(1 + a * a);
    const exact = (4 / Math.PI) * (a / root) * Math.atan(a / root);
    const area = {
      type: 'area',
      radiance: 1,
      at: [0, 0, up],
      target: [0, 0, 0],
      width: 1.2,
      height: 1.2,
      turn: 20,
      seen: false,
    };
    const matt = { roughness: 1, specular: 0 };
    const view = { focalLength: 6000 };
    const [c] = meanOf(pictureOf([{ mesh: square(20), surface: matt }], [{ ...area, ...lamp } as never], view), 1024);
    expect(Math.abs(c - exact) / exact).toBeLessThan(0.005);
  });
  it('a matt patch under a ball and a small lamp of one intensity: I / d² / π, and under a sun', () => {
    const matt = { roughness: 1, specular: 0 };
    const view = { focalLength: 6000 };
    const of = (light: object) =>
      meanOf(pictureOf([{ mesh: square(20), surface: matt }], [light as never], view), 1024)[0];
    for (const radius of [0, 0.4])
      expect(of({ type: 'ball', intensity: 2, at: [0, 0, 2], radius, ...lamp })).toBeCloseTo(2 / 4 / Math.PI, 2.6);
    for (const angle of [0, 3])
      expect(of({ type: 'sun', irradiance: Math.PI, from: [Math.sqrt(0.75), 0, 0.5], angle, ...lamp })).toBeCloseTo(
        0.5,
        2.6,
      );
  });
  it('inside a ball that shines and gives back half of what falls on it: E / (1 − ρ)', () => {
    const surface = { baseColor: '#BCBCBC', specular: 0, emissiveColor: '#FFFFFF', emissiveStrength: 1 };
    const inside = pictureOf([{ mesh: ball(5), surface }], [], { position: [0, 0, 0.1] });
    const albedo = ((0xbc / 255 + 0.055) / 1.055) ** 2.4;
    expect(meanOf(inside, 1024, { bounces: bouncesOf(64) })[0]).toBeCloseTo(1 / (1 - albedo), 1.7);
  });
  it('glass that bends nothing takes light away by Beer and Lambert', () => {
    const glass = {
      transmission: 1,
      thickness: 1,
      ior: 1.0001,
      roughness: 0,
      attenuationColor: '#FF8080',
      attenuationDistance: 1,
    };
    const picture = withSky(pictureOf([{ mesh: ball(1, 96), surface: glass }], [white], { focalLength: 6000 }));
    const green = ((0x80 / 255 + 0.055) / 1.055) ** 2.4;
    const [r, g] = meanOf(picture, 64);
    expect(r).toBeCloseTo(1, 2);
    expect(Math.abs(g - green ** 2) / green ** 2).toBeLessThan(0.01);
  });
  it('Fresnel’s mirror of glass at 0°, 60° and beyond the limit (Hecht, Optics, section 4.6)', () => {
    const { run } = new TraceMemory();
    expect(run.fresnel(1, 1.5)).toBeCloseTo(0.04, 6);
    expect(run.fresnel(0.5, 1.5)).toBeCloseTo((0.4202 ** 2 + 0.0424 ** 2) / 2, 3);
    expect(run.fresnel(Math.cos((42 * Math.PI) / 180), 1 / 1.5)).toBe(1);
    expect(run.fresnel(Math.cos((41 * Math.PI) / 180), 1 / 1.5)).toBeLessThan(1);
  });
});

describe('numbers of its own', () => {
  const { run } = new TraceMemory();
  it('sine, exponential and angle within their stated errors', () => {
    let [sine, e, angle] = [0, 0, 0];
    const random = randomSource(9);
    for (let i = 0; i < 20_000; i++) {
      const t = Math.fround(random() * 3 - 1);
      sine = Math.max(sine, Math.abs(run.sinTurns(t) - Math.sin(2 * Math.PI * t)));
      const x = Math.fround(random() * 174 - 87);
      e = Math.max(e, Math.abs(run.exp(x) / Math.exp(x) - 1));
      const [p, q] = [Math.fround(random() - 0.5), Math.fround(random() - 0.5)];
      angle = Math.max(angle, Math.abs(run.atan2Turns(p, q) - Math.atan2(p, q) / (2 * Math.PI)));
    }
    expect(sine).toBeLessThan(4e-6);
    expect(e).toBeLessThan(3e-7);
    expect(angle).toBeLessThan(4e-7);
  });
  it('Euler’s beta function, of halves and of whole numbers (M. Abramowitz & I. Stegun, 6.2.2)', () => {
    for (const [a, b, exact] of [
      [0, 0, 1],
      [1, 1, 1 / 6],
      [0.5, 0.5, Math.PI / 8],
      [2, 3, 1 / 60],
      [0, 7, 1 / 8],
      [20, 20, 1 / (137_846_528_820 * 41)],
    ])
      expect(Math.abs(run.beta(a, b) / exact - 1), `${a}, ${b}`).toBeLessThan(2e-5);
  });
  it('samples of a pixel are spread: 16 of them have one in each 16th of every number, and in each square of 4 × 4', () => {
    for (const pixel of [0, 7, 91]) {
      const strips = [0, 1, 2, 3].map(() => new Set<number>());
      const squares = new Set<number>();
      for (let n = 0; n < 16; n++) {
        run.beginSample(pixel, 3, 0, n);
        const u = [0, 1, 2, 3].map(() => run.next());
        u.forEach((x, k) => strips[k].add(Math.floor(16 * x)));
        squares.add(4 * Math.floor(4 * u[0]) + Math.floor(4 * u[1]));
      }
      expect(strips.map((s) => s.size)).toEqual([16, 16, 16, 16]);
      expect(squares.size).toBe(16);
    }
  });
});

describe('bits', () => {
  const scene = referencePicture();
  const { size, samples } = REFERENCE;
  const whole = { x: 0, y: 0, width: size.width, height: size.height };
  const first = (() => {
    const tracer = new Tracer();
    tracer.load(scene, size);
    return tracer.samples(whole, 0, samples);
  })();
  it('are the same in tiles, in any order, with samples in parts, in another tracer and a second time', () => {
    const tracer = new Tracer();
    tracer.load(pictureOf([{ mesh: ball() }], []), size);
    tracer.load(scene, size);
    for (const [x, y, width, height] of [
      [12, 8, 12, 8],
      [0, 0, 24, 8],
      [0, 8, 12, 8],
    ]) {
      const tile = { x, y, width, height };
      const part = tracer.samples(tile, 3, 8, tracer.samples(tile, 0, 3));
      for (let j = 0; j < height; j++)
        for (let k = 0; k < SUMS * width; k++)
          if (part[SUMS * width * j + k] !== first[SUMS * (24 * (y + j) + x) + k])
            throw new Error(`Pixel ${x + Math.floor(k / SUMS)}, ${y + j} is another one.`);
    }
  });
  it('are those that were written down', () => {
    const digest = createHash('sha256').update(new Uint8Array(first.buffer)).digest('hex');
    expect(digest).toBe(REFERENCE.sha256);
  });
  it('of a piece are those that were written down, as the workers of a browser have to make them', async () => {
    const { frame, samples, settings: how, sha256 } = REFERENCE_PIECE;
    const piece = referencePiece();
    expect(readPiece(writePiece(piece))).toMatchObject({ ok: true });
    const exposure = new Exposure(
      instantPictures(piece, frame, (r, f) => evaluateRibbon(r, piece.loop, f, 'final', new MeshCache()).mesh, samples),
      how,
    );
    const all = new Float64Array(SUMS * how.width * how.height);
    for (const tile of tilesOf(how.width, how.height)) {
      const { sums } = exposure.traced(tile, samples);
      for (let y = 0; y < tile.height; y++)
        all.set(
          sums.subarray(SUMS * tile.width * y, SUMS * tile.width * (y + 1)),
          SUMS * ((tile.y + y) * how.width + tile.x),
        );
    }
    expect(createHash('sha256').update(new Uint8Array(all.buffer)).digest('hex')).toBe(sha256);
  });
  it('are no picture of the scene from elsewhere, nor with other grain', () => {
    const tracer = new Tracer();
    for (const other of [
      pictureOf([{ mesh: ball() }], [white]),
      { ...scene, scene: { ...scene.scene, camera: { ...scene.scene.camera, position: [0, 1, 4] as const } } },
    ]) {
      tracer.load(other, size);
      expect(tracer.samples(whole, 0, 8)).not.toEqual(first);
    }
    tracer.load(scene, { ...size, seed: 3 });
    expect(tracer.samples(whole, 0, 8)).not.toEqual(first);
    expect(camera.position).toEqual([0, 0, 4]);
  });
});

describe('the loop', () => {
  it('has the same bits at frame N as at frame 0, and others in between', async () => {
    const file = path.join(import.meta.dirname, '../../../demo/2-gimbal.maypole.json');
    const read = readPiece(readFileSync(file, 'utf8'));
    if (!read.ok) throw new Error(read.message);
    const { piece } = read;
    for (const r of linkPiece(piece).ribbons) await makeReady(r, () => Promise.reject(new Error('It has no files.')));
    const cache = new MeshCache();
    const tracer = new Tracer();
    const at = (frame: number) => {
      const shape = (r: RibbonDoc) => evaluateRibbon(r, piece.loop, frame, 'draft', cache).mesh;
      const size = { ...settings, width: 32, height: 32, seed: frame % piece.loop.frames };
      tracer.load(pictureAt(piece, frame, shape), size);
      return tracer.samples({ x: 0, y: 0, width: 32, height: 32 }, 0, 4);
    };
    const first = at(0);
    expect(at(piece.loop.frames)).toEqual(first);
    expect(at(10)).not.toEqual(first);
  });
});

describe('where it is sharp', () => {
  it('a bright point out of focus is as large as the thin lens has it: aperture · |d − f| / d at the focus', () => {
    const view = { focalLength: 36, position: [0, 0, 4] as const, lensRadius: 0.2, focusDistance: 2 };
    const small = { emissiveColor: '#FFFFFF', emissiveStrength: 1, baseColor: '#000000', specular: 0 };
    const picture = pictureOf([{ mesh: ball(0.004, 6), surface: small }], [], view);
    const tracer = new Tracer();
    const size = 64;
    tracer.load(picture, { ...settings, width: size, height: size });
    const sums = tracer.samples({ x: 0, y: 0, width: size, height: size }, 0, 2048);
    let [weight, square2] = [0, 0];
    for (let y = 0; y < size; y++)
      for (let x = 0; x < size; x++) {
        const light = sums[SUMS * (y * size + x)];
        weight += light;
        square2 += light * ((x + 0.5 - size / 2) ** 2 + (y + 0.5 - size / 2) ** 2);
      }
    // The picture is as wide as it is far: 36 mm behind a lens of 36 mm. In the plane of focus, 2 m off, a pixel is 2 / 64 m.
    const radius = (0.2 * (4 - 2)) / 4 / (2 / size);
    // The mean square of distances in a disc is half its radius squared.
    expect(Math.sqrt((2 * square2) / weight)).toBeCloseTo(radius, 0.3);
  });
});
