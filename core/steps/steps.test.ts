import { readsNow } from '../declare/reads';
import { form } from '../fixtures/forms';
import { describe, expect, it } from 'vitest';
import { defaultsOf, type Evaluated } from '../declare/params';
import { surfaceArea, volume } from '../shape/measure';
import { faceCount, type Mesh } from '../shape/mesh';
import { gradientField } from '../noise/gradients';
import { displace } from './deform/displace';
import { twist } from './deform/twist';
import { smooth } from './detail/smooth';
import { subdivide } from './detail/subdivide';
import { stepGroups, stepKind, stepKinds } from './index';
import { place } from './place/place';
import { applyStep, brief, formatCount, StepProblem } from './step';

const context = { clock: { frame: 0, frames: 100 }, detail: 'draft' as const };
const empty = null as unknown as Mesh;
const pillar = form('cylinder', { radius: 1, height: 4, sides: 24, rows: 40, caps: true, capRings: 3 });
const letter = stepKind('text').evaluate(
  { ...defaultsOf(stepKind('text').params), text: 'O' } as never,
  empty,
  context,
);
const noSubdivision = defaultsOf(subdivide.params) as unknown as Evaluated<typeof subdivide.params>;
const ball = form('geodesic', { radius: 1, frequency: 12 });
const noisy = (over: Partial<Evaluated<typeof displace.params>> = {}) => ({
  ...(defaultsOf(displace.params) as unknown as Evaluated<typeof displace.params>),
  ...over,
});

describe('twist', () => {
  const twisted = (over: object) =>
    twist.evaluate(
      { ...defaultsOf(twist.params), angle: 90, axis: 'y', reach: 'form', length: 2, centre: 0, ...over } as never,
      pillar,
      context,
    );
  it('turns each section by its share of the angle about the axis', () => {
    const out = twisted({ angle: 120 });
    for (let i = 0; i < pillar.positions.length; i += 3) {
      const [x, y, z] = pillar.positions.subarray(i, i + 3);
      const a = ((y / 4) * 120 * Math.PI) / 180;
      // Right-handed about +y: z turns to x.
      expect(out.positions[i]).toBeCloseTo(x * Math.cos(a) + z * Math.sin(a), 5);
      expect(out.positions[i + 1]).toBe(pillar.positions[i + 1]);
      expect(out.positions[i + 2]).toBeCloseTo(z * Math.cos(a) - x * Math.sin(a), 5);
    }
  });
  it('keeps distances from the axis, and nearly the volume', () => {
    const out = twisted({ angle: 60 });
    for (let i = 0; i < out.positions.length; i += 3)
      expect(Math.hypot(out.positions[i], out.positions[i + 2])).toBeCloseTo(
        Math.hypot(pillar.positions[i], pillar.positions[i + 2]),
        5,
      );
    expect(Math.abs(volume(out) / volume(pillar) - 1)).toBeLessThan(0.01);
  });
  it('over a length goes on beyond it; the centre does not turn', () => {
    const out = twisted({ reach: 'length', length: 1, centre: 2, angle: 45 });
    const top = [...pillar.positions].findIndex((y, i) => i % 3 === 1 && y === 2) - 1;
    expect(out.positions[top]).toBeCloseTo(pillar.positions[top], 6);
  });
  it('by 0° passes its input on', () => expect(twisted({ angle: 0 })).toBe(pillar));
});

describe('displace', () => {
  it('moves each vertex along its normal by height times noise', () => {
    const out = displace.evaluate(noisy({ height: 0.25, rate: 0, scale: 0.5 }), ball, context);
    const field = gradientField(0, 0, context.clock);
    for (let i = 0; i < ball.positions.length; i += 3) {
      const [x, y, z] = ball.positions.subarray(i, i + 3);
      const r = Math.hypot(out.positions[i], out.positions[i + 1], out.positions[i + 2]);
      expect(r).toBeCloseTo(1 + 0.25 * field(x * 2, y * 2, z * 2), 3);
    }
  });
  it('along an axis leaves the others alone; radially it goes away from the origin', () => {
    const up = displace.evaluate(noisy({ direction: 'y' }), ball, context);
    const out = displace.evaluate(noisy({ direction: 'radial' }), ball, context);
    for (let i = 0; i < ball.positions.length; i += 3) {
      expect(up.positions[i]).toBe(ball.positions[i]);
      expect(up.positions[i + 2]).toBe(ball.positions[i + 2]);
      const cross = Math.hypot(
        out.positions[i] * ball.positions[i + 1] - out.positions[i + 1] * ball.positions[i],
        out.positions[i + 1] * ball.positions[i + 2] - out.positions[i + 2] * ball.positions[i + 1],
      );
      expect(cross).toBeLessThan(1e-6);
    }
  });
  it('by default neither swells nor shrinks a form: noise is centred on zero', () => {
    for (const noise of ['gradient', 'cellular', 'ridged']) {
      const areas = Array.from({ length: 12 }, (_, seed) =>
        displace.evaluate(noisy({ noise, height: 0.1, scale: 0.25, seed, direction: 'radial' }), ball, context),
      );
      const mean = areas.reduce((s, m) => s + Math.cbrt(volume(m) / volume(ball)), 0) / areas.length;
      expect(Math.abs(mean - 1)).toBeLessThan(0.01);
    }
  });
  it('closes over the loop, and knows when it changes by itself', () => {
    const at = (frame: number) =>
      displace.evaluate(noisy({ rate: 1.7 }), ball, { ...context, clock: { frame, frames: 90 } }).positions;
    expect(at(90)).toEqual(at(0));
    expect(at(45)).not.toEqual(at(0));
    expect(readsNow(displace.reads, 'clock', noisy({ rate: 1 }))).toBe(true);
    expect(readsNow(displace.reads, 'clock', noisy({ rate: 0 }))).toBe(false);
  });
});

describe('subdivide and smooth', () => {
  it('use the level of the detail asked for', () => {
    const faces = (detail: 'draft' | 'final') =>
      faceCount(
        subdivide.evaluate({ ...noSubdivision, draftLevel: 0, finalLevel: 1 }, ball, { ...context, detail })
          .connectivity,
      );
    expect(faces('draft')).toBe(2880);
    expect(faces('final')).toBe(8640);
  });
  it('refuse a level that would make too many faces, naming it', () => {
    expect(() => subdivide.evaluate({ ...noSubdivision, draftLevel: 7, finalLevel: 7 }, ball, context)).toThrow(
      StepProblem,
    );
    expect(() => subdivide.evaluate({ ...noSubdivision, draftLevel: 7, finalLevel: 7 }, ball, context)).toThrow(
      'Lower the draft level, now 7.',
    );
  });
  it('order matters: smoothing after displacing is flatter than before', () => {
    const d = (m: Mesh) => displace.evaluate(noisy({ scale: 0.2, height: 0.3 }), m, context);
    const s = (m: Mesh) =>
      smooth.evaluate(
        { ...(defaultsOf(smooth.params) as unknown as Evaluated<typeof smooth.params>), iterations: 10, strength: 60 },
        m,
        context,
      );
    expect(surfaceArea(s(d(ball)))).toBeLessThan(0.9 * surfaceArea(d(s(ball))));
  });
});

describe('place', () => {
  const placed = (over: object) =>
    place.evaluate({ shift: [0, 0, 0], turn: [0, 0, 0], size: 1, stretch: [1, 1, 1], ...over }, pillar, context);
  it('turns about x, then y, then z, as rotation matrices multiplied one after another do', () => {
    const [a, b, c] = [20, 50, -70].map((d) => (d * Math.PI) / 180);
    const out = placed({ turn: [20, 50, -70] });
    for (let i = 0; i < 60; i += 3) {
      let [x, y, z] = pillar.positions.subarray(i, i + 3);
      [y, z] = [y * Math.cos(a) - z * Math.sin(a), y * Math.sin(a) + z * Math.cos(a)];
      [x, z] = [x * Math.cos(b) + z * Math.sin(b), z * Math.cos(b) - x * Math.sin(b)];
      [x, y] = [x * Math.cos(c) - y * Math.sin(c), x * Math.sin(c) + y * Math.cos(c)];
      [x, y, z].forEach((v, k) => expect(out.positions[i + k]).toBeCloseTo(v, 5));
    }
  });
  it('stretches along its own axes before it turns', () => {
    const out = placed({ stretch: [2, 1, 3], turn: [0, 90, 0], size: 2 });
    for (let i = 0; i < 30; i += 3)
      [2 * 3 * pillar.positions[i + 2], 2 * pillar.positions[i + 1], -2 * 2 * pillar.positions[i]].forEach((x, k) =>
        expect(out.positions[i + k]).toBeCloseTo(x, 4),
      );
    expect(volume(out) / volume(pillar)).toBeCloseTo(8 * 6, 2);
  });
  it('sizes before it shifts', () => {
    const out = placed({ size: 2, shift: [1, 2, 3] });
    for (let i = 0; i < 30; i++) expect(out.positions[i]).toBeCloseTo(2 * pillar.positions[i] + [1, 2, 3][i % 3], 5);
    expect(volume(out) / volume(pillar)).toBeCloseTo(8, 4);
  });
});

describe('every step', () => {
  it('has a kind, a title and a group of its own, and defaults within its limits', () => {
    expect(new Set(stepKinds.map((k) => k.kind)).size).toBe(stepKinds.length);
    expect(new Set(stepKinds.map((k) => k.title)).size).toBe(stepKinds.length);
    for (const kind of stepKinds) {
      expect(stepGroups.some((g) => g.group === kind.group)).toBe(true);
      expect(kind.help).toMatch(/\.$/);
      for (const p of Object.values(kind.params)) {
        expect(p.help).toMatch(/\.$/);
        if (p.type === 'number') {
          expect(p.default).toBeGreaterThanOrEqual(p.min);
          expect(p.default).toBeLessThanOrEqual(p.max);
          expect(p.soft[0]).toBeGreaterThanOrEqual(p.min);
          expect(p.soft[1]).toBeLessThanOrEqual(p.max);
        }
      }
    }
  });
  it('works with its defaults, leaves its input alone, and sums itself up', () => {
    for (const kind of stepKinds) {
      // A ball has no edges to roll over.
      const body =
        kind.kind === 'tumble'
          ? stepKind('box').evaluate(defaultsOf(stepKind('box').params) as never, ball, context)
          : ball;
      const before = body.positions.slice();
      const values = defaultsOf(kind.params) as never;
      let out: Mesh | null = null;
      try {
        out = applyStep(kind, values, kind.needs === 'curves' ? letter : body, context);
      } catch (error) {
        // Those that want another ribbon, a file or a second outline say so in a whole sentence.
        expect((error as StepProblem).message).toMatch(/^[A-Z].*(needs|name|choose|has no|nothing|on its way).*\.$/);
      }
      if (out) {
        expect(out.positions.every(Number.isFinite)).toBe(true);
        expect(out.connectivity.vertexCount).toBeGreaterThan(0);
      }
      expect(body.positions).toEqual(before);
      expect(kind.summary(values).length).toBeGreaterThan(2);
    }
  });
  it('is known by its kind, and an unknown one is named', () => {
    expect(stepKind('twist').title).toBe('Twist');
    expect(() => stepKind('wobble')).toThrow('no step called “wobble”');
  });
  it('writes counts and lengths briefly', () => {
    expect([999, 1234, 31_250, 1_250_000].map(formatCount)).toEqual(['999', '1.2k', '31.3k', '1.3M']);
    expect([0.5, 2, 1 / 3].map(brief)).toEqual(['0.5', '2', '0.33']);
  });
});
