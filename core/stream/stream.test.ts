import { describe, expect, it } from 'vitest';
import { step, form } from '../fixtures/forms';
import { MeshCache } from '../evaluate/mesh-cache';
import { evaluateRibbon } from '../evaluate/ribbon';
import { curlCurrent } from '../noise/current';
import { newRibbon, newStep, type Piece, newPiece } from '../piece/piece';
import { linkPiece } from '../piece/link';
import { closureOf } from '../seam/distance';
import { checkSeam } from '../seam/check';
import { centresOf } from '../copies/copies';
import { dragShares, type Flight } from './flight';
import { level, surface } from './landing';
import { carriedPaths, freePaths, type Birth } from './paths';
import { everyFrames, perLoop } from './schedule';

const still = { speed: [0, 0, 0], gravity: [0, 0, 0], drag: 0 } as const;
const born = (over: Partial<Birth> = {}): Birth => ({ time: 0, at: [1, 0, 0], flight: still, life: 1, ...over });
const at = (paths: ReturnType<typeof freePaths>, i: number, age: number) => {
  const out = new Float64Array(6);
  paths.at(i, age, out);
  return out;
};
/** Way and speed of a particle's own flight along an axis, as streams show them. */
const flown = (flight: Flight, age: number, k: number) => at(freePaths([born({ at: [0, 0, 0], flight })]), 0, age)[k];
const speedAt = (flight: Flight, age: number, k: number) =>
  at(freePaths([born({ at: [0, 0, 0], flight })]), 0, age)[3 + k];
const each =
  (field: (x: number, y: number, z: number, t: number) => readonly [number, number, number]) =>
  (points: Float32Array, time: number) => {
    const out = new Float32Array(points.length);
    for (let i = 0; i < points.length; i += 3) out.set(field(points[i], points[i + 1], points[i + 2], time), i);
    return out;
  };

describe('flight with drag, against its closed solution', () => {
  it('comes to rest at v/d, falls with g/d in the end, and is a parabola without drag', () => {
    const flight = { speed: [3, 0, 0], gravity: [0, -10, 0], drag: 4 } as const;
    expect(flown(flight, 50, 0)).toBeCloseTo(3 / 4, 9);
    expect(speedAt(flight, 50, 1)).toBeCloseTo(-10 / 4, 9);
    const free = { ...flight, drag: 0 };
    expect(flown(free, 2, 0)).toBeCloseTo(6, 12);
    expect(flown(free, 2, 1)).toBeCloseTo(-20, 12);
  });
  it('agrees with the equation itself, integrated in a hundred thousand small steps', () => {
    const flight = { speed: [1, 2, -1], gravity: [0, -3, 0.5], drag: 1.7 } as const;
    for (const k of [0, 1, 2] as const) {
      let [x, v] = [0, flight.speed[k] as number];
      const h = 1e-5;
      for (let i = 0; i < 100_000; i++) {
        const middle = v + (h / 2) * (flight.gravity[k] - flight.drag * v);
        x += h * middle;
        v += h * (flight.gravity[k] - flight.drag * middle);
      }
      expect(flown(flight, 1, k)).toBeCloseTo(x, 6);
      expect(speedAt(flight, 1, k)).toBeCloseTo(v, 6);
    }
  });
  it('has no jump where drag becomes next to nothing', () => {
    const [a, b] = [dragShares(0.000999999), dragShares(0.001000001)];
    expect(Math.abs(a[0] - b[0])).toBeLessThan(2e-9);
    expect(Math.abs(a[1] - b[1])).toBeLessThan(2e-9);
  });
});

describe('paths in a current, against fields with known solutions', () => {
  it('uniform rotation carries round a circle, back to where it set out', () => {
    const w = 2 * Math.PI;
    const paths = carriedPaths(
      [born(), born({ time: 0.3137, at: [0, 0, 2] })],
      each((x, _y, z) => [-w * z, 0, w * x]),
      96,
    );
    for (const age of [0, 0.1, 0.25, 0.6137, 1]) {
      const p = at(paths, 0, age);
      expect(Math.hypot(p[0] - Math.cos(w * age), p[2] - Math.sin(w * age))).toBeLessThan(2e-5);
      const q = at(paths, 1, age);
      expect(Math.hypot(q[0] + 2 * Math.sin(w * age), q[2] - 2 * Math.cos(w * age))).toBeLessThan(4e-5);
    }
  });
  it('shear carries along by height: x = x₀ + k·y·t, exactly', () => {
    const p = at(
      carriedPaths(
        [born({ at: [0, 0.5, 0] })],
        each((_x, y) => [4 * y, 0, 0]),
        24,
      ),
      0,
      0.777,
    );
    expect(p[0]).toBeCloseTo(4 * 0.5 * 0.777, 5);
  });
  it('a wind that changes over the loop carries by its integral', () => {
    const p = at(
      carriedPaths(
        [born({ time: 0.2, at: [0, 0, 0] })],
        each((_x, _y, _z, t) => [Math.cos(2 * Math.PI * t), 0, 0]),
        48,
      ),
      0,
      0.5,
    );
    expect(p[0]).toBeCloseTo((Math.sin(2 * Math.PI * 0.7) - Math.sin(2 * Math.PI * 0.2)) / (2 * Math.PI), 3);
  });
  it('own flight and current add up', () => {
    const flight = { speed: [0, 2, 0], gravity: [0, -1, 0], drag: 0.5 } as const;
    const p = at(
      carriedPaths(
        [born({ flight })],
        each(() => [3, 0, 0]),
        24,
      ),
      0,
      0.9,
    );
    expect(p[0]).toBeCloseTo(1 + 2.7, 5);
    expect(p[1]).toBeCloseTo(flown(flight, 0.9, 1), 5);
  });
  it('are of fourth order: half the step leaves a sixteenth of the error', () => {
    const w = 2 * Math.PI;
    const error = (n: number) => {
      const p = at(
        carriedPaths(
          [born()],
          each((x, _y, z) => [-w * z, 0, w * x]),
          n,
        ),
        0,
        1,
      );
      return Math.hypot(p[0] - 1, p[2]);
    };
    const ratio = error(12) / error(24);
    expect(ratio).toBeGreaterThan(13);
    expect(ratio).toBeLessThan(40);
  });
});

describe('landing', () => {
  const segment = (a: number[], b: number[]) => [Float64Array.from(a), Float64Array.from(b)] as const;
  it('on a floor from above only, on a ball where the line meets it', () => {
    expect(level(-1)(...segment([0, 0, 0], [0, -4, 0]))).toBeCloseTo(0.25, 12);
    expect(level(-1)(...segment([0, -4, 0], [0, 0, 0]))).toBe(Infinity);
    const hits = surface(form('sphere', { radius: 1, meridians: 96, parallels: 48 }));
    expect(hits(...segment([0.1, 3, 0.07], [0.1, -3, 0.07]))).toBeCloseTo((3 - Math.sqrt(1 - 0.01 - 0.0049)) / 6, 2);
    expect(hits(...segment([2, 3, 0], [2, -3, 0]))).toBe(Infinity);
  });
});

describe('schedules', () => {
  it('release evenly, or every few frames; what does not come out even repeats after several loops', () => {
    expect(Array.from({ length: 4 }, (_, i) => perLoop(4).birth(i))).toEqual([0, 0.25, 0.5, 0.75]);
    expect(everyFrames(15, 150)).toMatchObject({ slots: 10, loops: 1 });
    expect(everyFrames(4, 150)).toMatchObject({ slots: 75, loops: 2 });
  });
  it('tell the age of the youngest of a slot, also across the seam', () => {
    const four = perLoop(4);
    expect([four.age(1, 0.5), four.age(3, 0.5), four.age(0, 0)]).toEqual([0.25, 0.75, 0]);
    expect(everyFrames(4, 150, 3).age(5, 0.5)).toBeCloseTo(0.5 - 4 / 150, 12);
  });
});

const stream = (over: object = {}) =>
  newStep('stream', { count: 30, sizeSpread: 0, growIn: 0, growOut: 0, turned: 'no', ...over });
const piece = (frames: number, fps: number, ...steps: ReturnType<typeof newStep>[]): Piece => ({
  ...newPiece(),
  loop: { frames, fps },
  ribbons: [{ ...newRibbon('platonic', 0), steps: [newStep('platonic', { radius: 0.05 }), ...steps] }],
});
const shape = (p: Piece, frame: number) =>
  evaluateRibbon(linkPiece(p).ribbons[0], p.loop, frame, 'draft', new MeshCache()).mesh;
const sorted = (p: ArrayLike<number>) =>
  Array.from({ length: p.length / 3 }, (_, i) => [p[3 * i], p[3 * i + 1], p[3 * i + 2]]).sort(
    (a, b) => a[0] - b[0] || a[1] - b[1],
  );

describe('a stream', () => {
  it('of 150 frames at 30 a second equals, from its first frame on, what a plain simulation shows at frames 300 and 450', () => {
    const every = 5;
    const flow = 1.2;
    const p = piece(
      150,
      30,
      stream({
        by: 'every',
        every,
        from: 'ball',
        life: 1.3,
        current: 'curl',
        flow: 1.2,
        flowScale: 1.1,
        flowRate: 0.7,
        drag: 1.5,
        fall: -0.8,
        cone: 0,
        speed: 2,
        speedSpread: 0,
      }),
    );
    // Places of birth are what the stream shows at the moments of birth; from there on a plain forward
    // simulation goes its own way, step by step, from nothing at frame 0.
    const first = Array.from({ length: 150 / every }, (_, slot) => {
      const { copies } = shape(p, slot * every);
      // Of two of the same slot the younger comes first.
      const at = [...copies!.ids!].indexOf(slot);
      return centresOf(copies!).slice(3 * at, 3 * at + 3);
    });
    let living: { x: number[]; v: number[]; age: number }[] = [];
    const parts = 4;
    const seen = new Map<number, number[][]>();
    for (let f = 0; f <= 450; f++) {
      living = living.filter((q) => q.age < 1.3 - 1e-9);
      if (f % every === 0) living.push({ x: [...first[(f / every) % 30]], v: [0, 2, 0], age: 0 });
      if (f === 300 || f === 450)
        seen.set(
          f,
          living.map((q) => q.x.slice()).sort((a, b) => a[0] - b[0] || a[1] - b[1]),
        );
      const h = 1 / 150 / parts;
      for (let s = 0; s < parts; s++) {
        // The midpoint rule, for all at once.
        const u = (x: readonly number[][], t: number) =>
          curlCurrent(
            { scale: 1.1, octaves: 1, seed: 0, rate: 0.7 },
            { frame: t, frames: 150 },
          )(Float32Array.from(x.flat()));
        const now = u(
          living.map((q) => q.x),
          f + s / parts,
        );
        const half = living.map((q, i) => q.x.map((x, k) => x + (h / 2) * (q.v[k] + flow * now[3 * i + k])));
        const middle = u(half, f + (s + 0.5) / parts);
        living.forEach((q, i) => {
          const vm = q.v.map((x, k) => x + (h / 2) * ((k === 1 ? 0.8 : 0) - 1.5 * x));
          q.x = q.x.map((x, k) => x + h * (vm[k] + flow * middle[3 * i + k]));
          q.v = q.v.map((x, k) => x + h * ((k === 1 ? 0.8 : 0) - 1.5 * vm[k]));
          q.age += h;
        });
      }
    }
    const ours = sorted(centresOf(shape(p, 0).copies!));
    for (const there of seen.values()) {
      expect(there).toHaveLength(ours.length);
      // Every place of one has its like in the other; 2 mm of some 3 m.
      for (const a of there)
        expect(Math.min(...ours.map((b) => Math.hypot(...a.map((x, k) => x - b[k]))))).toBeLessThan(0.002);
    }
    seen.get(300)!.forEach((a, i) => a.forEach((x, k) => expect(x).toBeCloseTo(seen.get(450)![i][k], 6)));
  }, 60_000);
  it('is the same at f = 0 and f = N, in any order, for lives of many loops', () => {
    for (const life of [0.2, 1, 2.7]) {
      const p = piece(
        48,
        24,
        stream({ life, current: 'curl', turned: 'tumble', growIn: 20, growOut: 30, tinted: true }),
      );
      expect(closureOf(shape(p, 0), shape(p, 48)).how).toBe('exact');
      expect(closureOf(shape(p, 0), shape(p, 17)).how).toBe('open');
    }
  });
  it('shows as many as live: those released in a life', () => {
    expect(shape(piece(60, 30, stream({ count: 30, life: 1.5 })), 10).copies!.source).toHaveLength(45);
    expect(shape(piece(60, 30, stream({ by: 'every', every: 15, burst: 3, life: 1 })), 10).copies!.source).toHaveLength(
      12,
    );
  });
  it('stays on a floor for its time, and then is gone', () => {
    const p = piece(
      100,
      25,
      stream({
        count: 1,
        from: 'point',
        source: [0, 1, 0],
        speed: 0,
        fall: 8,
        life: 5,
        ground: 'level',
        floor: 0,
        stays: 0.25,
        direction: [1, 0, 0],
      }),
    );
    const y = (frame: number) => [...centresOf(shape(p, frame).copies!)][1];
    // ½·8·t² = 1 at half a loop.
    expect(y(25)).toBeCloseTo(1 - 0.5 * 8 * 0.25 ** 2, 3);
    expect(y(55)).toBeCloseTo(0, 2);
    expect(y(74)).toBeCloseTo(0, 2);
    expect(shape(p, 80).copies!.source).toHaveLength(0);
  });
  it('every few frames that do not come out even is a gap, with repairs that mend it', async () => {
    const open = piece(150, 30, stream({ by: 'every', every: 4 }));
    const report = await checkSeam(open);
    expect(report.closed).toBe(false);
    const finding = report.proof.findings[0];
    expect(finding.words).toContain('every 4 frames');
    expect(finding.repairs.map((r) => r.words)).toEqual(['Every 3 frames', 'Every 5 frames']);
    expect((await checkSeam(piece(150, 30, stream({ by: 'every', every: 5 })))).closed).toBe(true);
  });
  it('says what is missing: what releases, what it lands on', () => {
    const box = form('box', { segments: 1 });
    expect(() => step('stream', box, { from: 'surface' })).toThrow('name one under “Released by”');
    expect(() => step('stream', box, { ground: 'ribbon' })).toThrow('ribbon to land on is missing');
    expect(() => step('stream', box, { count: 900_000, life: 50 })).toThrow('Release fewer');
  });
});
