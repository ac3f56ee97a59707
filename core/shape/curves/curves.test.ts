import { describe, expect, it } from 'vitest';
import { svgPathProperties } from 'svg-path-properties';
import { form, openEdges, step } from '../../fixtures/forms';
import { eulerCharacteristic, surfaceArea, volume } from '../measure';
import { randomSource } from '../../maths/random';
import { curvesMesh, pointsOf, polylinesOf } from './curves';
import { framesAlong, lengthOf, resampled } from './frames';
import { chained } from './net';
import { pathLines } from './svg-path';

const lengths = (m: ReturnType<typeof form>) =>
  polylinesOf(m.connectivity).map((l) => lengthOf(pointsOf(m.positions, l), l.closed));

describe('extrude', () => {
  // Areas of a regular polygon and a star from their triangles about the middle.
  const polygon = (n: number, r: number) => (n / 2) * r * r * Math.sin((2 * Math.PI) / n);
  it.each([3, 4, 6, 11])('a polygon of %i has base times height, and is closed', (points) => {
    const solid = step('extrude', form('outline', { outline: 'polygon', points, radius: 0.8, along: 3 }), {
      depth: 0.7,
      bevel: 0,
    });
    expect(volume(solid)).toBeCloseTo(polygon(points, 0.8) * 0.7, 5);
    expect(openEdges(solid)).toBe(0);
    expect(eulerCharacteristic(solid)).toBe(2);
  });
  it('a star has its area times its depth, though it bulges inwards', () => {
    const solid = step('extrude', form('outline', { outline: 'star', points: 7, inner: 40, radius: 1, along: 2 }), {
      depth: 0.5,
      bevel: 0,
    });
    expect(volume(solid)).toBeCloseTo(7 * 0.4 * Math.sin(Math.PI / 7) * 0.5, 5);
  });
  it('an outline inside another is a hole, whichever way it goes', () => {
    const ring = form('outline', { outline: 'polygon', points: 6, radius: 1, hole: 50, along: 2 });
    const solid = step('extrude', ring, { depth: 1, bevel: 0.1 });
    expect(eulerCharacteristic(solid)).toBe(0);
    expect(openEdges(solid)).toBe(0);
    const plain = step('extrude', ring, { depth: 1, bevel: 0 });
    expect(volume(plain)).toBeCloseTo(polygon(6, 1) - polygon(6, 0.5), 5);
  });
  it('a flat bevel of a square takes away what the formula says', () => {
    // Side a, depth d, bevel b: a²(d − 2b) and twice ∫(a − 2x)² dx from 0 to b.
    const [a, d, b] = [Math.SQRT2, 0.8, 0.15];
    const solid = step('extrude', form('outline', { outline: 'polygon', points: 4, radius: 1, along: 1 }), {
      depth: d,
      bevel: b,
      profile: 'flat',
      steps: 3,
    });
    expect(volume(solid)).toBeCloseTo(a * a * (d - 2 * b) + (2 * (a ** 3 - (a - 2 * b) ** 3)) / 6, 5);
  });
  it('bevels only the ends it is told to, and refuses open curves in words', () => {
    const square = form('outline', { outline: 'polygon', points: 4, along: 1 });
    const top = (m: ReturnType<typeof form>, sign: number) =>
      Math.max(
        ...Array.from({ length: m.positions.length / 3 }, (_, i) =>
          Math.sign(m.positions[3 * i + 1]) === sign && Math.abs(m.positions[3 * i + 1]) > 0.2499
            ? Math.hypot(m.positions[3 * i], m.positions[3 * i + 2])
            : 0,
        ),
      );
    const front = step('extrude', square, { ends: 'front', bevel: 0.1 });
    expect(top(front, 1)).toBeLessThan(top(front, -1) - 0.1);
    expect(() => step('extrude', form('curve', { curve: 'helix' }))).toThrow('closed outlines');
  });
});

describe('revolve', () => {
  it('a polygon round an axis has the volume of Pappus for a turn in flat steps', () => {
    // A wedge between half planes at θ has A · R · sin θ; P. Guldin's 2πRA as θ goes to 0.
    for (const sides of [5, 24, 90]) {
      const torus = step(
        'revolve',
        form('outline', { outline: 'polygon', points: 6, radius: 0.3, facing: 'front', aside: 1, along: 1 }),
        { sides },
      );
      const area = 3 * 0.09 * Math.sin(Math.PI / 3);
      expect(volume(torus)).toBeCloseTo(sides * Math.sin((2 * Math.PI) / sides) * area, 4);
      expect(openEdges(torus)).toBe(0);
      expect(eulerCharacteristic(torus)).toBe(0);
    }
  });
  it('part of a turn is closed by the outline itself at both ends', () => {
    const half = step(
      'revolve',
      form('outline', { outline: 'polygon', points: 5, radius: 0.3, facing: 'front', aside: 1, along: 1 }),
      { angle: 150, sides: 30 },
    );
    expect(openEdges(half)).toBe(0);
    expect(eulerCharacteristic(half)).toBe(2);
    expect(volume(half)).toBeCloseTo(30 * Math.sin((5 * Math.PI) / 180) * 2.5 * 0.09 * Math.sin((2 * Math.PI) / 5), 4);
  });
  it('an open profile from pole to pole makes a closed body with one vertex at each', () => {
    const half = curvesMesh([
      {
        points: Array.from({ length: 33 }, (_, i) => [Math.sin((Math.PI * i) / 32), -Math.cos((Math.PI * i) / 32), 0])
          .flat()
          .map((x) => (Math.abs(x) < 1e-12 ? 0 : x)),
        closed: false,
      },
    ]);
    const ball = step('revolve', half, { sides: 96 });
    expect(ball.connectivity.vertexCount).toBe(31 * 96 + 2);
    expect(openEdges(ball)).toBe(0);
    expect(volume(ball)).toBeCloseTo((4 / 3) * Math.PI, 1);
  });
});

describe('sweep and wires', () => {
  it('a square bar round a ring has its section times the length of the way', () => {
    const bar = step('sweep', form('curve', { curve: 'ring', size: 1, along: 600 }), {
      width: 0.2,
      along: 600,
      round: 1,
    });
    expect(volume(bar)).toBeCloseTo(0.04 * 2 * Math.PI, 3);
    expect(eulerCharacteristic(bar)).toBe(0);
  });
  it.each([0, 0.25, 0.5, 1, -0.75])(
    'twisted by %s turns, a square bar meets itself along a Lissajous curve',
    (twist) => {
      const bar = step('sweep', form('curve', { curve: 'lissajous' }), { twist, width: 0.1 });
      expect(openEdges(bar)).toBe(0);
      // Where it joins no ring lies askew: edges along the way are about as long there as elsewhere.
      const across = bar.connectivity.vertexCount / 240;
      const gap = (i: number, j: number) =>
        Math.hypot(...[0, 1, 2].map((k) => bar.positions[3 * i + k] - bar.positions[3 * j + k]));
      const corners = [...bar.connectivity.corners];
      const last = corners.findIndex((v, i) => i % 4 === 0 && v >= 239 * across);
      expect(gap(corners[last], corners[last + 3])).toBeLessThan(2.5 * gap(0, across));
    },
  );
  it('a twist that does not join goes to the nearest that does', () => {
    const at = (twist: number) => step('sweep', form('curve', { curve: 'eight' }), { twist });
    expect(at(0.3).positions).toEqual(at(0.25).positions);
    expect(at(0.3).positions).not.toEqual(at(0.5).positions);
  });
  it('a wire that narrows to its tip has the volume of a cone', () => {
    const cone = step('wires', form('curve', { curve: 'line', size: 1, along: 20 }), { root: 0.3, tip: 0, sides: 60 });
    expect(volume(cone)).toBeCloseTo((30 * Math.sin(Math.PI / 30) * 0.09 * 2) / 3, 3);
  });
  it('frames stay square to the way and turn no more than they must', () => {
    const knot = pointsOf(
      form('curve', { curve: 'knot', along: 400 }).positions,
      polylinesOf(form('curve', { curve: 'knot', along: 400 }).connectivity)[0],
    );
    const { tangents, normals } = framesAlong(knot, true);
    const dot = (a: Float64Array, i: number, b: Float64Array, j: number) =>
      [0, 1, 2].reduce((s, k) => s + a[3 * i + k] * b[3 * j + k], 0);
    for (let i = 0; i < 400; i++) {
      expect(Math.abs(dot(tangents, i, normals, i))).toBeLessThan(1e-9);
      // Round the seam, too.
      expect(dot(normals, i, normals, (i + 1) % 400)).toBeGreaterThan(0.98);
    }
  });
});

describe('loft', () => {
  const circle = (r: number, y: number) =>
    step('place', form('outline', { outline: 'circle', radius: r, along: 24 }), { shift: [0, y, 0] });
  it('from circle to circle is a frustum', () => {
    const body = step('loft', circle(1, 0), { way: 'straight', around: 96 }, { other: () => circle(0.5, 2) });
    // h/3 (A + √(AB) + B) for the polygons that stand for the circles.
    const area = (r: number) => 48 * r * r * Math.sin((2 * Math.PI) / 96);
    expect(volume(body)).toBeCloseTo((2 / 3) * (area(1) + Math.sqrt(area(1) * area(0.5)) + area(0.5)), 4);
    expect(openEdges(body)).toBe(0);
  });
  it('says what is missing, and does not go from closed to open', () => {
    expect(() => step('loft', circle(1, 0))).toThrow('two outlines or more');
    expect(() => step('loft', circle(1, 0), {}, { other: () => form('curve', { curve: 'line' }) })).toThrow(
      'closed curve to an open one',
    );
  });
});

describe('curves of geometry', () => {
  it('have the lengths of their formulas', () => {
    // A helix is the diagonal of its unrolled cylinder.
    expect(lengths(form('curve', { curve: 'helix', size: 0.7, depth: 2, turns: 5, along: 4000 }))[0]).toBeCloseTo(
      Math.hypot(2 * Math.PI * 0.7 * 5, 2),
      3,
    );
    expect(lengths(form('curve', { curve: 'ring', size: 2, along: 4000 }))[0]).toBeCloseTo(4 * Math.PI, 4);
  });
  it('a torus knot has the length that Simpson’s rule gives for its speed', () => {
    const [R, r, p, q] = [1.2, 0.45, 2, 3];
    // |c′|² = (p(R + r cos qt))² + (rq)².
    const speed = (t: number) => Math.hypot(p * (R + r * Math.cos(q * t)), r * q);
    const n = 2000;
    const h = (2 * Math.PI) / n;
    let sum = 0;
    for (let i = 0; i < n; i += 2) sum += (h / 3) * (speed(i * h) + 4 * speed((i + 1) * h) + speed((i + 2) * h));
    expect(lengths(form('curve', { curve: 'knot', size: R, depth: r, p, q, along: 5000 }))[0]).toBeCloseTo(sum, 4);
  });
  it('resampling spreads points evenly and keeps the ends of open ones', () => {
    const p = resampled([0, 0, 0, 1, 0, 0, 1, 3, 0], false, 9);
    expect([...p.slice(0, 3), ...p.slice(-3)]).toEqual([0, 0, 0, 1, 3, 0]);
    for (let i = 0; i < 8; i++)
      expect(Math.hypot(p[3 * i + 3] - p[3 * i], p[3 * i + 4] - p[3 * i + 1])).toBeCloseTo(0.5, 9);
  });
});

describe('nets', () => {
  it('edges become curves that run on where only two meet', () => {
    expect(chained([0, 1, 1, 2, 2, 0], 3)).toEqual([{ vertices: [0, 1, 2], closed: true }]);
    expect(polylinesOf(step('edges-to-curves', form('box', { segments: 1 })).connectivity)).toHaveLength(12);
    const border = polylinesOf(
      step('edges-to-curves', form('plane', { columns: 5, rows: 4 }), { which: 'border' }).connectivity,
    );
    expect(border).toHaveLength(1);
    expect(border[0]).toMatchObject({ closed: true });
    expect(border[0].vertices).toHaveLength(18);
    expect(
      polylinesOf(
        step('edges-to-curves', form('cylinder', { sides: 24 }), { which: 'sharp', angle: 60 }).connectivity,
      ).every((l) => l.closed && l.vertices.length === 24),
    ).toBe(true);
  });
  it('a slack thread pulled tight is straight, and threads of one length become so', () => {
    const random = randomSource(3);
    const slack = curvesMesh([
      { points: Array.from({ length: 40 }, (_, i) => [i / 39, i % 39 ? random() * 0.5 : 0, 0]).flat(), closed: false },
    ]);
    const tight = step('relax', slack, { passes: 600, strength: 100 });
    expect(Math.max(...tight.positions.filter((_, i) => i % 3 === 1))).toBeLessThan(0.01);
    const even = step('relax', slack, { passes: 800, strength: 90, towards: 'length', length: 30 });
    const edges = Array.from({ length: 39 }, (_, i) =>
      Math.hypot(...[0, 1, 2].map((k) => even.positions[3 * i + 3 + k] - even.positions[3 * i + k])),
    );
    const mean = edges.reduce((a, b) => a + b) / 39;
    for (const e of edges) expect(Math.abs(e / mean - 1)).toBeLessThan(0.05);
  });
  it('smoothing works on nets of curves as on faces', () => {
    const zigzag = curvesMesh([
      { points: Array.from({ length: 30 }, (_, i) => [i / 10, i % 2, 0]).flat(), closed: false },
    ]);
    const out = step('smooth', zigzag, { iterations: 20 });
    expect(Math.abs(out.positions[3 * 14 + 1] - out.positions[3 * 15 + 1])).toBeLessThan(0.05);
    expect(out.positions[1]).toBe(0);
  });
});

describe('paths of vector drawings', () => {
  // Every command of SVG 1.1, section 8.3, absolute and relative; lengths by an independent library.
  it.each([
    'M10 10 L 60 20 90 80',
    'm10 10 l 50 10 30 60 z',
    'M0 0 H 80 V 40 h -30 v -20 Z',
    'M10 80 C 40 10, 65 10, 95 80 S 150 150, 180 80',
    'm10 80 c 30 -70 55 -70 85 0 s 55 70 85 0',
    'M10 80 Q 52.5 10, 95 80 T 180 80',
    'm10 80 q 42.5 -70 85 0 t 85 0',
    'M80 80 A 45 30 20 0 0 125 125 A 20 40 0 1 1 60 60',
    'm80 80 a 45 45 0 1 0 45 45 a 10 20 70 0 1 -30 -12',
    'M1e1,1.5e1L-.5-.5.5.5',
    'M0 0a50 50 0 0150 50',
  ])('“%s” has the length it should', (d) => {
    const length = pathLines(d, 1e-4).reduce((sum, l) => {
      const p = l.points;
      for (let i = 0; i + 2 < p.length; i += 2) sum += Math.hypot(p[i + 2] - p[i], p[i + 3] - p[i + 1]);
      return sum + (l.closed ? Math.hypot(p[0] - p[p.length - 2], p[1] - p[p.length - 1]) : 0);
    }, 0);
    const reference = new svgPathProperties(d).getTotalLength();
    expect(Math.abs(length / reference - 1)).toBeLessThan(2e-3);
  });
  it('arcs too small to reach are made as large as they must be (SVG 1.1, F.6.6)', () => {
    const [l] = pathLines('M0 0 A 25 25 0 0 1 50 50', 1e-4);
    let sum = 0;
    for (let i = 0; i + 2 < l.points.length; i += 2)
      sum += Math.hypot(l.points[i + 2] - l.points[i], l.points[i + 3] - l.points[i + 1]);
    expect(sum).toBeCloseTo((Math.PI * Math.hypot(50, 50)) / 2, 1);
  });
  it('what cannot be read is said with its place', () => {
    expect(() => form('svg', { path: 'M0 0 L 10 oops' })).toThrow(/cannot be read/);
    expect(() => form('svg', { path: '   ' })).toThrow('There is no line to draw');
    expect(() => form('svg', { path: 'M 3 4' })).toThrow('only moves the pen');
  });
  it('a whole file is searched for its paths', () => {
    const file = '<svg viewBox="0 0 10 10"><path fill="red" d="M0 0H10V10H0Z"/><path d=\'M2 2H4V4H2Z\'/></svg>';
    const drawn = form('svg', { path: file, size: 1 });
    expect(polylinesOf(drawn.connectivity)).toHaveLength(2);
    expect(volume(step('extrude', drawn, { depth: 1, bevel: 0 }))).toBeCloseTo(1 - 0.04, 5);
  });
});

describe('text', () => {
  const solid = (text: string) => step('extrude', form('text', { text, size: 1 }), { depth: 0.2, bevel: 0 });
  it('letters with holes have them, and those without have none', () => {
    expect(eulerCharacteristic(solid('O'))).toBe(0);
    expect(eulerCharacteristic(solid('B'))).toBe(-2);
    expect(eulerCharacteristic(solid('LT'))).toBe(4);
    for (const t of ['Larkhaven', 'Wetter & Wind', 'ÅÇé?']) expect(openEdges(solid(t))).toBe(0);
  });
  it('lines stand below each other, and a letter that is not there is named', () => {
    const [one, two] = [solid('II'), solid('I\nI')];
    expect(surfaceArea(two)).toBeCloseTo(surfaceArea(one), 4);
    expect(() => form('text', { text: 'a 雨' })).toThrow('“雨”');
  });
});
