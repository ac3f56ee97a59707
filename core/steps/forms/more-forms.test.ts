import { describe, expect, it } from 'vitest';
import { defaultsOf } from '../../declare/params';
import type { Mesh } from '../../shape/mesh';
import { eulerCharacteristic, surfaceArea, volume } from '../../shape/measure';
import { topologyOf } from '../../shape/topology';
import { randomSource } from '../../maths/random';
import { stepKind } from '../index';
import { solids } from './solids-data';

const empty = {
  connectivity: { vertexCount: 0, faceStart: new Uint32Array(1), corners: new Uint32Array(0) },
  positions: new Float32Array(0),
};
const make = (kind: string, values: object = {}, frame = 0): Mesh =>
  stepKind(kind).evaluate({ ...defaultsOf(stepKind(kind).params), ...values } as never, empty, {
    clock: { frame, frames: 60 },
    detail: 'draft',
  });
const borders = (m: Mesh) => [...topologyOf(m.connectivity).borderEdge].filter(Boolean).length;
/** The error falls to a quarter when the segments double. */
const converges = (at: (n: number) => number, truth: number, n = 24) => {
  const [a, b] = [n, 2 * n].map((k) => Math.abs(at(k) - truth) / truth);
  expect(a / b).toBeGreaterThan(3);
  expect(b).toBeLessThan(0.01);
};

// Volumes and areas: Bronshtein & Semendyayev, Handbook of Mathematics, section on solids.
describe('volumes and areas of the handbook', () => {
  it('sphere 4πr³/3; cone πr²h/3; truncated cone πh(R² + Rr + r²)/3; capsule πr²(4r/3 + h)', () => {
    converges((n) => volume(make('sphere', { radius: 2, meridians: 2 * n, parallels: n })), (4 / 3) * Math.PI * 8);
    converges((n) => volume(make('cone', { bottom: 2, top: 0, height: 3, sides: n })), (Math.PI * 4 * 3) / 3);
    converges((n) => volume(make('cone', { bottom: 2, top: 1, height: 3, sides: n })), (Math.PI * 3 * 7) / 3);
    converges(
      (n) => volume(make('capsule', { radius: 0.5, height: 3, sides: n, endRows: n })),
      Math.PI * 0.25 * (2 / 3 + 2),
    );
  });
  it('ellipsoid 4πabc/3, and every round form sized per axis holds abc times what it held', () => {
    converges(
      (n) => volume(make('sphere', { radius: 1, stretch: [1, 2, 0.5], meridians: 2 * n, parallels: n })),
      (4 / 3) * Math.PI,
    );
    for (const kind of ['sphere', 'cylinder', 'cone', 'torus', 'geodesic', 'platonic', 'capsule'])
      expect(volume(make(kind, { stretch: [2, 3, 0.5] })) / volume(make(kind, {}))).toBeCloseTo(3, 4);
  });
  it('cylinder with round rims: the body parallel to a smaller one, V + Sr + Mr² + 4πr³/3 (Steiner’s formula)', () => {
    const [r, a, b] = [0.3, 0.7, 1.4];
    const [v, s, m] = [Math.PI * a * a * b, 2 * Math.PI * a * (a + b), Math.PI * b + Math.PI ** 2 * a];
    converges(
      (n) => volume(make('cylinder', { radius: a + r, height: b + 2 * r, rounding: r, sides: 2 * n, roundSteps: n })),
      v + s * r + m * r * r + (4 / 3) * Math.PI * r ** 3,
    );
  });
  it('disc πR², ring π(R² − r²), facing up', () => {
    converges((n) => surfaceArea(make('disc', { radius: 2, sides: n })), Math.PI * 4);
    converges((n) => surfaceArea(make('disc', { radius: 2, hole: 1, sides: n })), Math.PI * 3);
  });
  it('prism: half n·r²·sin(2π/n)·h; star of n tips n·R·r·sin(π/n)·h', () => {
    for (const n of [3, 5, 8]) {
      expect(
        volume(make('medal', { outline: 'polygon', points: n, radius: 2, depth: 3, bevel: 0, along: 4 })),
      ).toBeCloseTo((n / 2) * 4 * Math.sin((2 * Math.PI) / n) * 3, 3);
      expect(
        volume(make('medal', { outline: 'star', points: n, radius: 2, inner: 50, depth: 3, bevel: 0, along: 4 })),
      ).toBeCloseTo(n * 2 * Math.sin(Math.PI / n) * 3, 3);
    }
  });
  it('a pipe along a closed curve has the volume of its length times its section (Pappus), a knot too', () => {
    const knot = (n: number) =>
      volume(make('cord', { curve: 'knot', size: 2, depth: 0.6, p: 2, q: 3, thickness: 0.1, along: 12 * n, round: n }));
    // Length of the (2, 3) knot by Simpson's rule on its speed, written out.
    const speed = (u: number) => {
      const [p, q, r, d] = [4 * Math.PI, 6 * Math.PI, 2, 0.6];
      return Math.hypot(p * (r + d * Math.cos(q * u)), q * d);
    };
    let length = 0;
    for (let i = 0; i < 1000; i++)
      length += (speed(i / 1000) + 4 * speed((i + 0.5) / 1000) + speed((i + 1) / 1000)) / 6000;
    converges(knot, length * Math.PI * 0.01, 16);
  });
});

describe('the five regular solids', () => {
  // Counts, dihedral angles and volumes for edge 1: Coxeter, Regular Polytopes, table I.
  const table = {
    tetrahedron: [4, 6, 4, Math.acos(1 / 3), Math.SQRT2 / 12, Math.sqrt(3 / 8)],
    cube: [8, 12, 6, Math.PI / 2, 1, Math.sqrt(3) / 2],
    octahedron: [6, 12, 8, Math.acos(-1 / 3), Math.SQRT2 / 3, Math.SQRT1_2],
    dodecahedron: [
      20,
      30,
      12,
      Math.acos(-1 / Math.sqrt(5)),
      (15 + 7 * Math.sqrt(5)) / 4,
      (Math.sqrt(3) * (1 + Math.sqrt(5))) / 4,
    ],
    icosahedron: [
      12,
      30,
      20,
      Math.acos(-Math.sqrt(5) / 3),
      (5 * (3 + Math.sqrt(5))) / 12,
      Math.sqrt(10 + 2 * Math.sqrt(5)) / 4,
    ],
  } as const;
  it.each(Object.entries(table))(
    '%s: corners, edges, faces, dihedral angle, volume and circumradius',
    (name, [corners, edges, faces, dihedral, vol, circum]) => {
      const { corners: points, faces: list } = solids[name as keyof typeof solids];
      const m = make('platonic', { solid: name, radius: circum });
      expect([
        m.connectivity.vertexCount,
        topologyOf(m.connectivity).edges.length / 2,
        m.connectivity.faceStart.length - 1,
      ]).toEqual([corners, edges, faces]);
      expect(volume(m)).toBeCloseTo(vol, 5);
      const normal = (f: readonly number[]) => {
        const [a, b, c] = f.map((i) => points[i]);
        const [u, v] = [b, c].map((p) => p.map((x, k) => x - a[k]));
        const n = [u[1] * v[2] - u[2] * v[1], u[2] * v[0] - u[0] * v[2], u[0] * v[1] - u[1] * v[0]];
        return n.map((x) => x / Math.hypot(...n));
      };
      const next = list.find((f) => f !== list[0] && f.filter((i) => list[0].includes(i)).length === 2)!;
      const cosine = normal(list[0]).reduce((s, x, k) => s + x * normal(next)[k], 0);
      expect(Math.PI - Math.acos(cosine)).toBeCloseTo(dihedral, 6);
    },
  );
  it('cut finer they keep their volume; pushed out they become the ball', () => {
    for (const solid of Object.keys(solids)) {
      expect(volume(make('platonic', { solid, parts: 5, radius: 1 }))).toBeCloseTo(
        volume(make('platonic', { solid, radius: 1 })),
        5,
      );
      const ball = make('platonic', { solid, parts: 12, ball: 100, radius: 1 });
      for (let i = 0; i < ball.positions.length; i += 3)
        expect(Math.hypot(...ball.positions.slice(i, i + 3))).toBeCloseTo(1, 5);
      expect(eulerCharacteristic(ball)).toBe(2);
    }
  });
});

describe('connectivity', () => {
  it.each([
    ['sphere', {}, 2, 0],
    ['cone', {}, 2, 0],
    ['cone', { top: 0.5, rounding: 0.2 }, 2, 0],
    ['cone', { bottom: 0, top: 1 }, 2, 0],
    ['capsule', {}, 2, 0],
    ['disc', { sides: 9 }, 1, 9],
    ['disc', { hole: 0.3, sides: 9 }, 0, 18],
    ['platonic', { parts: 3 }, 2, 0],
    ['medal', {}, 2, 0],
    ['medal', { outline: 'superellipse', bevel: 0 }, 2, 0],
    ['cord', {}, 0, 0],
    ['cord', { curve: 'lissajous' }, 0, 0],
    ['drops', { count: 1, cells: 24 }, 2, 0],
  ] as const)('%s %j: Euler characteristic %i, %i border edges, faces outwards', (kind, values, chi, open) => {
    const m = make(kind, values);
    expect(eulerCharacteristic(m)).toBe(chi);
    expect(borders(m)).toBe(open);
    if (open === 0) expect(volume(m)).toBeGreaterThan(0);
    expect(m.positions.every(Number.isFinite)).toBe(true);
  });
  it('a rounded cone keeps within its own measures, for random settings', () => {
    const random = randomSource(9);
    for (let n = 0; n < 60; n++) {
      const values = {
        bottom: random() * 2,
        top: random() * 2,
        height: 0.2 + random() * 3,
        rounding: random() * 1.5,
        sides: 12,
        rows: 4,
      };
      const m = make('cone', values);
      for (let i = 0; i < m.positions.length; i += 3) {
        expect(Math.abs(m.positions[i + 1])).toBeLessThanOrEqual(values.height / 2 + 1e-5);
        expect(Math.hypot(m.positions[i], m.positions[i + 2])).toBeLessThanOrEqual(
          Math.max(values.bottom, values.top) + 1e-5,
        );
      }
      expect(volume(m)).toBeGreaterThan(0);
    }
  });
});

describe('implicit forms', () => {
  it('have no holes: every edge has as many faces on one side as on the other', () => {
    for (const m of [
      make('minimal', { cells: 40 }),
      make('minimal', { surface: 'primitive', cut: 'cube', cells: 36 }),
      make('drops', { cells: 40 }),
    ]) {
      const { corners, faceStart } = m.connectivity;
      const balance = new Map<string, number>();
      for (let f = 0; f + 1 < faceStart.length; f++)
        for (let i = faceStart[f]; i < faceStart[f + 1]; i++) {
          const [a, b] = [corners[i], corners[i + 1 < faceStart[f + 1] ? i + 1 : faceStart[f]]];
          const key = a < b ? `${a},${b}` : `${b},${a}`;
          balance.set(key, (balance.get(key) ?? 0) + (a < b ? 1 : -1));
        }
      expect([...balance.values()].every((n) => n === 0)).toBe(true);
    }
  });
  it('one drop is a ball of its radius, to the second order of the cells', () => {
    for (const cells of [24, 48])
      expect(
        volume(make('drops', { count: 1, variety: 0, radius: 0.5, reach: [0, 0, 0], cells })) /
          ((4 / 3) * Math.PI * 0.125),
      ).toBeCloseTo(1, 1);
    converges(
      (n) => surfaceArea(make('drops', { count: 1, variety: 0, radius: 0.5, reach: [0, 0, 0], cells: n })),
      Math.PI,
      30,
    );
  });
  it('travel by whole periods, and are the same at f = N bit for bit', () => {
    const [a, b, c] = [0, 60, 30].map((f) => make('minimal', { cells: 30, travels: [0, 1, 0] }, f));
    expect(b.positions).toEqual(a.positions);
    expect(c.positions.length === a.positions.length && c.positions.every((x, i) => x === a.positions[i])).toBe(false);
    const [d, e] = [0, 60].map((f) => make('drops', { cells: 30 }, f));
    expect(e.positions).toEqual(d.positions);
  });
});
