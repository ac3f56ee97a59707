import { beforeAll, describe, expect, it } from 'vitest';
import { BufferAttribute, BufferGeometry, DoubleSide, Ray, Vector3 } from 'three';
import { MeshBVH } from 'three-mesh-bvh';
import { form, openEdges, step } from '../../fixtures/forms';
import { randomSource } from '../../maths/random';
import { loadDecimation } from '../decimate';
import { faceMiddle, faceNormal } from '../faces';
import { linksBetween } from '../links';
import { boundsOf, eulerCharacteristic, surfaceArea, volume } from '../measure';
import { faceCount, FINISH, type Mesh } from '../mesh';
import { trianglesOf } from '../triangulate';
import { loadSolids } from './manifold';

beforeAll(async () => {
  await loadSolids();
  await loadDecimation();
});

const combine = (a: Mesh, b: Mesh, way: string, more: object = {}) =>
  step('combine', a, { way, ...more }, { other: (p) => (p === 'other' ? b : undefined) });
const at = (m: Mesh, shift: number[], turn: number[] = [0, 0, 0]) => step('place', m, { shift, turn });

describe('combine', () => {
  const ball = form('geodesic', { frequency: 24, radius: 1 });
  it('two balls share the lens of the formula', () => {
    // π(4r + d)(2r − d)²/12 for equal balls (E. Weisstein, MathWorld, “Sphere–Sphere Intersection”).
    for (const d of [0.4, 1, 1.6]) {
      const lens = combine(ball, at(ball, [d, 0, 0]), 'intersection');
      expect(volume(lens) / ((Math.PI * (4 + d) * (2 - d) ** 2) / 12)).toBeGreaterThan(0.985);
      expect(volume(lens) / ((Math.PI * (4 + d) * (2 - d) ** 2) / 12)).toBeLessThan(1);
      expect(openEdges(lens)).toBe(0);
    }
  });
  it('two cylinders across each other share Steinmetz’ solid, 16 r³/3', () => {
    const rod = form('cylinder', { radius: 1, height: 4, sides: 128 });
    expect(volume(combine(rod, at(rod, [0, 0, 0], [90, 0, 0]), 'intersection')) / (16 / 3)).toBeCloseTo(1, 2);
  });
  it('what is in both, in one and in either add up', () => {
    const [a, b] = [
      form('box', { size: [1, 1, 1] }),
      at(form('torus', { ringRadius: 0.5, pipeRadius: 0.2 }), [0.4, 0.1, 0]),
    ];
    const [both, less, either] = ['intersection', 'difference', 'union'].map((w) => volume(combine(a, b, w)));
    expect(both + less).toBeCloseTo(volume(a), 5);
    expect(either).toBeCloseTo(volume(a) + volume(b) - both, 5);
  });
  it('keeps whole quads whole, and gives cut faces the finish for insides', () => {
    const out = combine(
      form('box', { size: [2, 2, 2], segments: 8 }),
      form('cylinder', { radius: 0.3, height: 3, sides: 16 }),
      'difference',
    );
    const sides = Array.from(
      { length: faceCount(out.connectivity) },
      (_, f) => out.connectivity.faceStart[f + 1] - out.connectivity.faceStart[f],
    );
    expect(sides.filter((s) => s === 4).length).toBeGreaterThan(300);
    expect(new Set(out.connectivity.slots)).toEqual(new Set([FINISH.main, FINISH.inside]));
    expect(eulerCharacteristic(out)).toBe(0);
  });
  it('an open shape is refused with what would close it', () => {
    expect(() => combine(form('plane'), form('box'), 'union')).toThrow('This form is not closed');
    expect(() => combine(form('box'), form('plane'), 'union')).toThrow('The other ribbon is not closed');
    expect(() => step('combine', form('box'))).toThrow('name another ribbon');
  });
});

describe('bevel', () => {
  it('takes off a cube what the formula says, and leaves it closed', () => {
    // Twelve prisms of w²/2 · (a − 2w), and 5/6 w³ at each corner, where a tetrahedron of w³/6 stays.
    const [a, w] = [1.4, 0.2];
    const out = step('bevel', form('box', { size: [a, a, a], segments: 1 }), { width: w, segments: 1 });
    expect(volume(out)).toBeCloseTo(a ** 3 - 6 * w * w * (a - 2 * w) - (8 * 5 * w ** 3) / 6, 5);
    expect(faceCount(out.connectivity)).toBe(6 + 12 + 8);
    expect(eulerCharacteristic(out)).toBe(2);
  });
  it.each([
    ['platonic', { solid: 'dodecahedron' }],
    ['platonic', { solid: 'tetrahedron' }],
    ['cylinder', { sides: 12, rows: 1 }],
    ['box', { segments: 3 }],
    ['medal', { outline: 'polygon', points: 5, bevel: 0, along: 1, rows: 1, rings: 1 }],
  ] as const)('%s %o stays closed and outwards at any number of segments', (kind, values) => {
    for (const segments of [1, 2, 5]) {
      const body = form(kind, values);
      const out = step('bevel', body, { width: 0.05, segments });
      expect(openEdges(out)).toBe(0);
      expect(eulerCharacteristic(out)).toBe(2);
      expect(volume(out)).toBeLessThan(volume(body));
      expect(volume(out)).toBeGreaterThan(0.9 * volume(body));
    }
  });
  it('leaves edges flatter than the angle, and never folds small faces over', () => {
    const ball = form('geodesic', { frequency: 6 });
    expect(step('bevel', ball, { angle: 40 }).positions).toEqual(ball.positions);
    const fine = step('bevel', form('box', { size: [1, 1, 1], segments: 1 }), { width: 5, segments: 3 });
    expect(volume(fine)).toBeGreaterThan(0);
    expect(openEdges(fine)).toBe(0);
  });
});

describe('rest on', () => {
  it('stands on the ground or on another ribbon, with a gap', () => {
    const ball = at(form('geodesic', { radius: 0.5 }), [2, 5, 0]);
    expect(boundsOf(step('rest', ball, { gap: 0.1 }).positions)!.min[1]).toBeCloseTo(0.1, 5);
    const box = at(form('box', { size: [1, 1, 1] }), [0, 1, 0]);
    const out = boundsOf(step('rest', ball, { on: 'ribbon', over: 'middle' }, { other: () => box }).positions)!;
    expect(out.min[1]).toBeCloseTo(1.5, 5);
    expect((out.min[0] + out.max[0]) / 2).toBeCloseTo(0, 5);
  });
});

describe('shell', () => {
  /** Distances from face middles inwards to the other side, by an independent ray caster (three-mesh-bvh). */
  function thicknesses(m: Mesh): number[] {
    const geometry = new BufferGeometry();
    geometry.setAttribute('position', new BufferAttribute(m.positions, 3));
    geometry.setIndex(new BufferAttribute(trianglesOf(m).triangles, 1));
    const tree = new MeshBVH(geometry);
    const c = m.connectivity;
    return Array.from({ length: Math.floor(faceCount(c) / 2) }, (_, f) => {
      const n = new Vector3(...faceNormal(c, m.positions, f)).normalize();
      const from = new Vector3(...faceMiddle(c, m.positions, f));
      const hit = tree.raycastFirst(new Ray(from.addScaledVector(n, -1e-4), n.clone().negate()), DoubleSide);
      return (hit?.distance ?? Infinity) + 1e-4;
    });
  }
  it.each([
    ['box', { segments: 4 }],
    ['geodesic', { frequency: 12 }],
    ['platonic', { solid: 'dodecahedron' }],
    ['torus', {}],
  ] as const)('%s %o is as thick everywhere as it was told to be', (kind, values) => {
    for (const t of thicknesses(step('shell', form(kind, values), { thickness: 0.1 })))
      expect(Math.abs(t - 0.1)).toBeLessThan(0.006);
  });
  it('has its insides in their own finish, with the rim or without', () => {
    const half = step('thin-out', form('platonic'), { share: 50 });
    const count = (lining: string) =>
      [...(step('shell', half, { lining }).connectivity.slots ?? [])].filter((s) => s === FINISH.inside).length;
    expect(count('same')).toBe(0);
    expect(count('own')).toBe(6);
    expect(count('rim')).toBeGreaterThan(6);
  });
});

describe('faces and points', () => {
  it('triangles keep area and volume, also of polygons that bulge inwards', () => {
    for (const m of [form('platonic'), step('extrude', form('outline'), {}), form('torus')]) {
      const cut = step('triangulate', m);
      expect(volume(cut)).toBeCloseTo(volume(m), 4);
      expect(cut.connectivity.faceStart.every((s, f) => s === 3 * f)).toBe(true);
      expect(openEdges(cut)).toBe(openEdges(m));
    }
  });
  it('parting all edges and welding them again gives the form back', () => {
    const body = form('box', { segments: 3 });
    const apart = step('part', body, { angle: 0 });
    expect(apart.connectivity.vertexCount).toBe(4 * 54);
    const again = step('weld', apart, { distance: 1e-4 });
    expect(again.connectivity.vertexCount).toBe(body.connectivity.vertexCount);
    expect(openEdges(again)).toBe(0);
    expect(step('part', body, { angle: 30 }).connectivity.vertexCount).toBe(6 * 16);
  });
  it('links are those a search through all pairs finds', () => {
    const random = randomSource(8);
    const p = Float32Array.from({ length: 3 * 300 }, () => random() * 3);
    const found = linksBetween(p, 0.5, 1000);
    const all: string[] = [];
    for (let a = 0; a < 300; a++)
      for (let b = a + 1; b < 300; b++)
        if (Math.hypot(...[0, 1, 2].map((k) => p[3 * a + k] - p[3 * b + k])) <= 0.5) all.push(`${a}/${b}`);
    expect(Array.from({ length: found.length / 2 }, (_, i) => `${found[2 * i]}/${found[2 * i + 1]}`).sort()).toEqual(
      all.sort(),
    );
    const few = linksBetween(p, 0.5, 2);
    for (let v = 0; v < 300; v++) expect(few.filter((x) => x === v).length).toBeLessThanOrEqual(2);
  });
  it('a link is thinner the longer it is, and gone at the radius', () => {
    const two = (d: number) =>
      step(
        'links',
        {
          connectivity: { vertexCount: 2, faceStart: new Uint32Array(1), corners: new Uint32Array(0) },
          positions: Float32Array.from([0, 0, 0, d, 0, 0]),
        },
        { radius: 1, rod: 0.1 },
      );
    expect(volume(two(0.2)) / 0.2).toBeGreaterThan(volume(two(0.8)) / 0.8);
    expect(volume(two(0.999))).toBeLessThan(1e-6);
    expect(two(1.01).positions).toHaveLength(0);
  });
  it('decimation keeps the form at draft and leaves final alone', () => {
    const body = form('torus');
    const draft = step('decimate', body, { share: 10 });
    expect(faceCount(draft.connectivity)).toBeLessThan(0.12 * 2 * 2560);
    expect(surfaceArea(draft) / surfaceArea(body)).toBeCloseTo(1, 1);
    expect(step('decimate', body, { share: 10 }, { detail: 'final' })).toBe(body);
  });
});
