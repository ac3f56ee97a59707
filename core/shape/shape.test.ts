import { form } from '../fixtures/forms';
import { Matrix, solve } from 'ml-matrix';
import { describe, expect, it } from 'vitest';
import { box } from '../steps/forms/box';
import { plane } from '../steps/forms/plane';
import { randomSource } from '../maths/random';
import { ConnectivityBuilder, meshOf } from './builder';
import { catmullClark, facesAfter } from './catmull-clark';
import { drawBuffers, drawTopologyOf } from './drawable';
import { laplacianSmooth } from './laplacian';
import { eulerCharacteristic, surfaceArea, volume } from './measure';
import { faceCount, type Mesh } from './mesh';
import { vertexNormals } from './normals';
import { topologyOf } from './topology';

const context = { clock: { frame: 0, frames: 100 }, detail: 'draft' as const };
const empty = null as unknown as Mesh;
const cube = box.evaluate(
  { uneven: false, counts: [1, 1, 1], rounding: 0, size: [2, 2, 2], segments: 1 },
  empty,
  context,
);

/** The mesh moved at random, so that checks do not lean on symmetry. */
function shaken(mesh: Mesh, by: number, seed = 4): Mesh {
  const random = randomSource(seed);
  return { ...mesh, positions: mesh.positions.map((x) => x + by * (random() - 0.5)) };
}

describe('topology', () => {
  it('finds the edges, sides and neighbours of a cube', () => {
    const t = topologyOf(cube.connectivity);
    expect(t.edges.length / 2).toBe(12);
    expect([...t.border]).toEqual(Array(8).fill(0));
    for (let v = 0; v < 8; v++) expect(t.neighbourStart[v + 1] - t.neighbourStart[v]).toBe(3);
  });
  it('marks the border of an open sheet', () => {
    const sheet = plane.evaluate({ width: 1, depth: 1, columns: 3, rows: 2 }, empty, context);
    const t = topologyOf(sheet.connectivity);
    expect(t.edges.length / 2).toBe(3 * 3 + 4 * 2);
    expect([...t.border].filter(Boolean).length).toBe(10);
    expect([...t.borderEdge].filter(Boolean).length).toBe(10);
  });
  it('is computed once per connectivity', () =>
    expect(topologyOf(cube.connectivity)).toBe(topologyOf(cube.connectivity)));
});

describe('Catmull–Clark', () => {
  it('turns a cube of half edge 1 into the worked example: face points at 1, edge points at ¾, corners at 5/9', () => {
    // E. Catmull & J. Clark (1978), rules applied by hand to the cube [−1, 1]³, a worked example
    // found in many courses: face point (0, 0, 1); edge point (½ ends + ½ faces) (0, ¾, ¾);
    // vertex point (Q + 2R + (n−3)S)/n with n = 3, Q = ⅓, R = ⅔ of the corner: 5/9.
    const once = catmullClark(cube, 1);
    expect(faceCount(once.connectivity)).toBe(24);
    expect(once.connectivity.vertexCount).toBe(26);
    const kinds = { corner: 0, edge: 0, face: 0 };
    for (let i = 0; i < once.positions.length; i += 3) {
      const p = [...once.positions.subarray(i, i + 3)].map(Math.abs).sort((a, b) => a - b);
      const is = (want: number[]) => want.every((w, k) => Math.abs(p[k] - w) < 1e-6);
      if (is([5 / 9, 5 / 9, 5 / 9])) kinds.corner++;
      else if (is([0, 0.75, 0.75])) kinds.edge++;
      else if (is([0, 0, 1])) kinds.face++;
    }
    expect(kinds).toEqual({ corner: 8, edge: 12, face: 6 });
  });
  it('keeps the Euler characteristic and the counts it promises', () => {
    const ring = form('torus', { ringRadius: 1, pipeRadius: 0.3, ringSegments: 9, pipeSegments: 5 });
    for (const levels of [0, 1, 2, 3]) {
      const m = catmullClark(ring, levels);
      expect(eulerCharacteristic(m)).toBe(0);
      expect(faceCount(m.connectivity)).toBe(facesAfter(ring.connectivity, levels));
    }
  });
  it('leaves a flat regular sheet flat, and draws its border as a cubic B-spline', () => {
    const sheet = plane.evaluate({ width: 4, depth: 4, columns: 4, rows: 4 }, empty, context);
    const once = catmullClark(sheet, 1);
    for (let i = 1; i < once.positions.length; i += 3) expect(once.positions[i]).toBe(0);
    // Inner vertices of a regular grid stay where they are; border ones follow (1, 6, 1)/8.
    const moved = { ...sheet, positions: sheet.positions.slice() };
    moved.positions[1 * 3 + 1] = 0.8;
    expect(catmullClark(moved, 1).positions[1 * 3 + 1]).toBeCloseTo(0.75 * 0.8, 6);
    expect(catmullClark(moved, 1).positions[2 * 3 + 1]).toBeCloseTo(0.125 * 0.8, 6);
  });
  it('does not care how the mesh is turned: subdividing and rotating commute', () => {
    const turn = (m: Mesh): Mesh => ({
      ...m,
      positions: m.positions.map((_, i, p) => (i % 3 === 0 ? p[i + 1] : i % 3 === 1 ? p[i + 1] : p[i - 2])),
    });
    const rough = shaken(cube, 0.4);
    const a = turn(catmullClark(rough, 2)).positions;
    const b = catmullClark(turn(rough), 2).positions;
    for (let i = 0; i < a.length; i++) expect(a[i]).toBeCloseTo(b[i], 6);
  });
  it('comes close to its limit surface: volume settles as levels go up', () => {
    const v = [2, 3, 4, 5].map((l) => volume(catmullClark(cube, l)));
    expect(Math.abs(v[3] - v[2])).toBeLessThan(Math.abs(v[2] - v[1]) / 2);
    expect(Math.abs(v[2] - v[1])).toBeLessThan(Math.abs(v[1] - v[0]) / 2);
  });
});

describe('Laplacian smoothing', () => {
  const rough = shaken(
    box.evaluate({ uneven: false, counts: [1, 1, 1], rounding: 0, size: [1, 2, 3], segments: 3 }, empty, context),
    0.3,
  );
  /** I − λ(I − D⁻¹A) as a dense matrix, from the edge list alone. */
  const step = (mesh: Mesh, strength: number): Matrix => {
    const n = mesh.connectivity.vertexCount;
    const a = Matrix.zeros(n, n);
    const { edges } = topologyOf(mesh.connectivity);
    for (let e = 0; e < edges.length; e += 2) {
      a.set(edges[e], edges[e + 1], 1);
      a.set(edges[e + 1], edges[e], 1);
    }
    const m = Matrix.eye(n, n).mul(1 - strength);
    for (let i = 0; i < n; i++) {
      const degree = a.getRow(i).reduce((s, x) => s + x);
      for (let j = 0; j < n; j++) m.set(i, j, m.get(i, j) + (strength * a.get(i, j)) / degree);
    }
    return m;
  };
  const asMatrix = (mesh: Mesh) => Matrix.from1DArray(mesh.connectivity.vertexCount, 3, [...mesh.positions]);

  it('equals repeated multiplication with the dense matrix of a linear algebra library', () => {
    for (const [iterations, strength] of [
      [1, 0.5],
      [2, 1],
      [7, 0.3],
    ] as const) {
      let want = asMatrix(rough);
      const m = step(rough, strength);
      for (let i = 0; i < iterations; i++) want = m.mmul(want);
      const got = laplacianSmooth(rough, iterations, strength, false).positions;
      want.to1DArray().forEach((x, i) => expect(got[i]).toBeCloseTo(x, 5));
    }
  });
  it('is undone by solving the dense system', () => {
    const back = solve(step(rough, 0.25), asMatrix(laplacianSmooth(rough, 1, 0.25, false)));
    back.to1DArray().forEach((x, i) => expect(x).toBeCloseTo(rough.positions[i], 4));
  });
  it('holds borders when told to, and never writes its input', () => {
    const sheet = shaken(plane.evaluate({ width: 1, depth: 1, columns: 5, rows: 5 }, empty, context), 0.2);
    const before = sheet.positions.slice();
    const held = laplacianSmooth(sheet, 5, 0.7, true);
    const { border } = topologyOf(sheet.connectivity);
    for (let v = 0; v < border.length; v++)
      if (border[v]) for (let k = 0; k < 3; k++) expect(held.positions[v * 3 + k]).toBe(before[v * 3 + k]);
    expect(sheet.positions).toEqual(before);
    expect(laplacianSmooth(sheet, 0, 0.5, true).positions).toBe(sheet.positions);
  });
});

describe('normals', () => {
  it('of a ball point outwards along its radius', () => {
    const ball = catmullClark(cube, 4);
    const n = vertexNormals(ball.connectivity, ball.positions);
    for (let i = 0; i < n.length; i += 3) {
      expect(Math.hypot(n[i], n[i + 1], n[i + 2])).toBeCloseTo(1, 5);
      const dot = n[i] * ball.positions[i] + n[i + 1] * ball.positions[i + 1] + n[i + 2] * ball.positions[i + 2];
      expect(dot / Math.hypot(...ball.positions.subarray(i, i + 3))).toBeGreaterThan(0.98);
    }
  });
  it('of a torus agree with its formula, better with more segments', () => {
    const worst = (n: number) => {
      const ring = form('torus', { ringRadius: 2, pipeRadius: 0.5, ringSegments: n, pipeSegments: n });
      const normals = vertexNormals(ring.connectivity, ring.positions);
      let error = 0;
      for (let i = 0; i < normals.length; i += 3) {
        const [x, y, z] = ring.positions.subarray(i, i + 3);
        const r = Math.hypot(x, z);
        const want = [(x / r) * ((r - 2) / 0.5), y / 0.5, (z / r) * ((r - 2) / 0.5)];
        error = Math.max(error, Math.hypot(...want.map((w, k) => w - normals[i + k])));
      }
      return error;
    };
    expect(worst(48)).toBeLessThan(0.02);
    expect(worst(96)).toBeLessThan(worst(48) / 2);
  });
});

describe('what is drawn', () => {
  it('splits vertices only where shading breaks: a cube has 24 drawn vertices and flat normals', () => {
    const draw = drawTopologyOf(cube.connectivity);
    expect(draw.vertexCount).toBe(24);
    expect(draw.triangles.length / 3).toBe(12);
    expect(draw.edges.length / 2).toBe(12);
    expect(draw.closed).toBe(true);
    const { positions, normals } = drawBuffers(cube);
    for (let i = 0; i < normals.length; i += 3) {
      const n = [...normals.subarray(i, i + 3)].map(Math.abs).sort();
      expect(n).toEqual([0, 0, 1]);
      const along = normals.subarray(i, i + 3).reduce((s, x, k) => s + x * positions[i + k], 0);
      expect(along).toBeCloseTo(1, 6);
    }
  });
  it('gives fresh buffers, so that they can be handed to another thread', () => {
    const ball = catmullClark(cube, 1);
    expect(drawBuffers(ball).positions).not.toBe(ball.positions);
    expect(drawBuffers(ball).positions).toEqual(ball.positions);
  });
  it('cuts polygons of any number of sides into fans of the same area', () => {
    const faces = new ConnectivityBuilder();
    faces.face([0, 1, 2, 3, 4, 5]);
    const hexagon = meshOf(
      faces.finish(6),
      Float32Array.from(
        { length: 18 },
        (_, i) => [Math.cos((Math.floor(i / 3) * Math.PI) / 3), 0, -Math.sin((Math.floor(i / 3) * Math.PI) / 3)][i % 3],
      ),
    );
    expect(surfaceArea(hexagon)).toBeCloseTo((3 * Math.sqrt(3)) / 2, 6);
    expect(drawTopologyOf(hexagon.connectivity).triangles.length).toBe(12);
    expect(() => meshOf(hexagon.connectivity, new Float32Array(3))).toThrow('3 coordinates do not fit 6 vertices');
  });
});
