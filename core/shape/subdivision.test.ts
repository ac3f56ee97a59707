import { describe, expect, it } from 'vitest';
import { form, openEdges, step } from '../fixtures/forms';
import { catmullClark } from './catmull-clark';
import { loopSubdivision } from './loop-subdivision';
import { surfaceArea, volume } from './measure';
import type { Mesh } from './mesh';
import { vertexNormals } from './normals';
import { topologyOf } from './topology';
import { triangulated } from './triangulated';

const point = (m: Mesh, v: number) => [0, 1, 2].map((k) => m.positions[3 * v + k]);
const neighbours = (m: Mesh, v: number) => {
  const t = topologyOf(m.connectivity);
  return [...t.neighbours.subarray(t.neighbourStart[v], t.neighbourStart[v + 1])];
};
const facesAt = (m: Mesh, v: number) => {
  const { faceStart, corners } = m.connectivity;
  return Array.from({ length: faceStart.length - 1 }, (_, f) => [
    ...corners.subarray(faceStart[f], faceStart[f + 1]),
  ]).filter((f) => f.includes(v));
};
/** Neighbours of v one after the other round it, and across from each pair the far corner of their quad. */
function ringOf(m: Mesh, v: number): { edges: number[]; across: number[] } {
  const faces = facesAt(m, v).map((f) => {
    const i = f.indexOf(v);
    return { out: f[(i + 1) % f.length], far: f[(i + 2) % f.length], in: f[(i + f.length - 1) % f.length] };
  });
  const edges = [faces[0].out];
  const across: number[] = [];
  while (across.length < faces.length) {
    const f = faces.find((x) => x.out === edges[edges.length - 1])!;
    across.push(f.far);
    edges.push(f.in);
  }
  return { edges: edges.slice(0, -1), across };
}
const sum = (m: Mesh, list: readonly number[], weight: (i: number) => number = () => 1) =>
  [0, 1, 2].map((k) => list.reduce((s, v, i) => s + weight(i) * m.positions[3 * v + k], 0));
const distance = (a: readonly number[], b: readonly number[]) => Math.hypot(...a.map((x, k) => x - b[k]));

describe('Catmull–Clark in the limit', () => {
  const cages: [string, Mesh][] = [
    ['a cube, valence 3', form('box', { segments: 1, size: [2, 1, 1.5] })],
    ['an icosahedron, valences 5 and 4', form('platonic', { solid: 'icosahedron' })],
    ['a dodecahedron, valences 3, 5 and 4', form('platonic', { solid: 'dodecahedron' })],
  ];
  it.each(cages)('%s: vertices go to the published limit stencil', (_, cage) => {
    // n²v + 4 Σ edges + Σ far corners over n(n + 5), on quads (M. Halstead, M. Kass & T. DeRose, SIGGRAPH 1993).
    const quads = catmullClark(cage, 1);
    const fine = catmullClark(quads, 5);
    for (let v = 0; v < quads.connectivity.vertexCount; v++) {
      const { edges, across } = ringOf(quads, v);
      const n = edges.length;
      const [e, f] = [sum(quads, edges), sum(quads, across)];
      const limit = point(quads, v).map((x, k) => (n * n * x + 4 * e[k] + f[k]) / (n * (n + 5)));
      expect(distance(point(fine, v), limit)).toBeLessThan(4e-4);
    }
  });
  it('normals go to the cross product of the published tangent stencils', () => {
    const quads = catmullClark(form('platonic', { solid: 'icosahedron' }), 1);
    const fine = catmullClark(quads, 5);
    const normals = vertexNormals(fine.connectivity, fine.positions);
    for (let v = 0; v < quads.connectivity.vertexCount; v++) {
      const { edges, across } = ringOf(quads, v);
      const n = edges.length;
      // Halstead, Kass & DeRose: Aₙ cos(2πi/n) on edges, cos(2πi/n) + cos(2π(i+1)/n) on far corners.
      const c = (i: number) => Math.cos((2 * Math.PI * i) / n);
      const a = 1 + c(1) + Math.cos(Math.PI / n) * Math.sqrt(2 * (9 + c(1)));
      const tangent = (shift: number) => {
        const [e, f] = [
          sum(quads, edges, (i) => a * c(i + shift)),
          sum(quads, across, (i) => c(i + shift) + c(i + 1 + shift)),
        ];
        return e.map((x, k) => x + f[k]);
      };
      const [s, t] = [tangent(0), tangent(1)];
      const m = [t[1] * s[2] - t[2] * s[1], t[2] * s[0] - t[0] * s[2], t[0] * s[1] - t[1] * s[0]];
      const l = Math.hypot(...m);
      const cosine = m.reduce((d, x, k) => d + (x / l) * normals[3 * v + k], 0);
      expect(Math.abs(cosine)).toBeGreaterThan(0.9995);
    }
  });
});

describe('creases', () => {
  it('a cube with all edges sharp stays a cube', () => {
    const cube = form('box', { segments: 1, size: [2, 2, 2] });
    const out = step('subdivide', cube, { draftLevel: 4, crease: 10 });
    for (let v = 0; v < out.connectivity.vertexCount; v++)
      expect(Math.max(...point(out, v).map(Math.abs))).toBeCloseTo(1, 5);
    expect(volume(out)).toBeCloseTo(8, 4);
  });
  it('the rim of a prism stays on its cubic B-spline', () => {
    const prism = form('cylinder', { sides: 7, rows: 1, capRings: 1 });
    const out = step('subdivide', prism, { draftLevel: 6, crease: 10, angle: 70 });
    const top = [...Array(prism.connectivity.vertexCount).keys()].filter(
      (v) => Math.abs(Math.hypot(point(prism, v)[0], point(prism, v)[2]) - 1) < 0.5 && point(prism, v)[1] > 0,
    );
    expect(top).toHaveLength(7);
    for (const v of top) {
      const along = neighbours(prism, v).filter((u) => top.includes(u));
      // The limit of a B-spline's control point: (before + 4 of it + after) / 6.
      const limit = point(prism, v).map((x, k) => (4 * x + along.reduce((s, u) => s + point(prism, u)[k], 0)) / 6);
      expect(distance(point(out, v), limit)).toBeLessThan(1e-3);
    }
  });
  it('between whole numbers the form lies between, and it grows with the sharpness', () => {
    const volumes = [0, 0.5, 1, 1.5, 2, 3].map((crease) =>
      volume(step('subdivide', form('box', { segments: 1, size: [2, 2, 2] }), { draftLevel: 4, crease })),
    );
    volumes.slice(1).forEach((v, i) => expect(v).toBeGreaterThan(volumes[i]));
    expect(volumes[5]).toBeLessThan(8);
  });
});

describe('Loop', () => {
  it.each(['tetrahedron', 'octahedron', 'icosahedron'])(
    'the vertices of a %s go to the limit of Loop’s scheme',
    (solid) => {
      // (ω v + Σ neighbours) / (ω + n) with ω = 3/(8β) (C. Loop 1987), Warren’s β.
      const cage = form('platonic', { solid });
      const fine = loopSubdivision(cage, 6, true);
      for (let v = 0; v < cage.connectivity.vertexCount; v++) {
        const ring = neighbours(cage, v);
        const n = ring.length;
        const omega = 3 / (8 * (n === 3 ? 3 / 16 : 3 / (8 * n)));
        const limit = point(cage, v).map((x, k) => (omega * x + sum(cage, ring)[k]) / (omega + n));
        expect(distance(point(fine, v), limit)).toBeLessThan(3e-3);
      }
      expect(openEdges(fine)).toBe(0);
      expect(fine.connectivity.faceStart.length - 1).toBe((cage.connectivity.faceStart.length - 1) * 4 ** 6);
    },
  );
  it('borders follow the cubic B-spline, and quads are cut first', () => {
    const sheet = triangulated(form('plane', { columns: 2, rows: 2, width: 2, depth: 2 }));
    const fine = loopSubdivision(sheet, 5, true);
    const corner = [...Array(9).keys()].find((v) => point(sheet, v)[0] === -1 && point(sheet, v)[2] === -1)!;
    // The corner and its neighbours along the border, 1 away each way: a sixth of the way in.
    const [x, , z] = point(fine, corner);
    expect(Math.abs(x + 1 - 1 / 6)).toBeLessThan(2e-3);
    expect(Math.abs(z + 1 - 1 / 6)).toBeLessThan(2e-3);
  });
});

describe('plain splitting', () => {
  it('changes neither area nor volume, and keeps the shading of faces', () => {
    const box = form('box', { segments: 1 });
    const out = step('subdivide', box, { scheme: 'plain', draftLevel: 3 });
    expect(surfaceArea(out)).toBeCloseTo(surfaceArea(box), 4);
    expect(volume(out)).toBeCloseTo(volume(box), 5);
    expect(new Set(out.connectivity.shadingGroups).size).toBe(6);
  });
});

describe('what faces carry', () => {
  it('goes along through subdivision, thinning and copies: finish and place on the surface', () => {
    const half = step('shell', step('thin-out', form('torus', { ringSegments: 12, pipeSegments: 8 }), { share: 50 }), {
      thickness: 0.05,
    });
    for (const m of [
      step('subdivide', half, {}),
      step('subdivide', half, { scheme: 'loop' }),
      step('symmetry', half, { times: 3 }),
      step('mirror', half),
      step('part', half),
      step('triangulate', half),
    ]) {
      const { slots, uv, faceStart, corners } = m.connectivity;
      expect(slots).toHaveLength(faceStart.length - 1);
      expect(new Set(slots)).toEqual(new Set([0, 1]));
      expect(uv).toHaveLength(2 * corners.length);
      expect(uv!.every((x) => x >= 0 && x <= 1.0001)).toBe(true);
    }
  });
});
