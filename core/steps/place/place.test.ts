import { describe, expect, it } from 'vitest';
import { defaultsOf } from '../../declare/params';
import { loadDecimation } from '../../shape/decimate';
import { boundsOf, volume } from '../../shape/measure';
import type { Mesh } from '../../shape/mesh';
import { axisAngle, moved } from '../../maths/quaternion';
import { closureOf, meshDistance } from '../../seam/distance';
import { StepProblem } from '../step';
import { stepKind } from '../index';
import { convexHull, rollOf } from './rolling';

const empty = {
  connectivity: { vertexCount: 0, faceStart: new Uint32Array(1), corners: new Uint32Array(0) },
  positions: new Float32Array(0),
};
const make = (kind: string, values: object, input: Mesh = empty, frame = 0, frames = 120): Mesh =>
  stepKind(kind).evaluate({ ...defaultsOf(stepKind(kind).params), ...values } as never, input, {
    clock: { frame, frames },
    detail: 'draft',
  });
const cube = make('box', { size: [1, 1, 1], segments: 2 });
const points = (m: Mesh) =>
  Array.from({ length: m.positions.length / 3 }, (_, i) => [...m.positions.slice(3 * i, 3 * i + 3)]);

describe('spin', () => {
  it('turns a tilted cube about the upright axis whatever its pose: heights and distances stay', () => {
    const tilted = make('place', { turn: [35, 20, 45] }, cube);
    for (const frame of [0, 17, 60]) {
      const out = make('spin', { turns: 2 }, tilted, frame);
      points(out).forEach((p, i) => {
        const q = points(tilted)[i];
        expect(p[1]).toBeCloseTo(q[1], 5);
        expect(Math.hypot(p[0], p[2])).toBeCloseTo(Math.hypot(q[0], q[2]), 5);
      });
    }
  });
  it('leaves the points of its axis where they are, through any point and in any direction', () => {
    const direction = [1, 2, -1] as const;
    const through = [0.5, 1, 2] as const;
    const line = {
      ...cube,
      positions: Float32Array.from([-2, -1, 0, 1, 3].flatMap((s) => direction.map((d, k) => through[k] + s * d))),
    };
    const out = make('spin', { axis: 'free', direction, through, angle: 77, turns: 3 }, line, 41);
    points(out).forEach((p, i) => p.forEach((x, k) => expect(x).toBeCloseTo(points(line)[i][k], 5)));
  });
  it('is exact after a loop with whole turns; a quarter turn of a cube closes as a set, of a slab it does not', () => {
    expect(closureOf(make('spin', { turns: 3 }, cube, 0), make('spin', { turns: 3 }, cube, 120)).how).toBe('exact');
    const quarter = (m: Mesh) =>
      closureOf(make('spin', { turns: 1, symmetry: 4 }, m, 0), make('spin', { turns: 1, symmetry: 4 }, m, 120)).how;
    expect(quarter(cube)).toBe('permuted');
    expect(quarter(make('box', { size: [2, 1, 1] }))).toBe('open');
  });
});

describe('a rolling outline', () => {
  it('has the hull of its points, without those on its edges', () => {
    const square = [
      [0, 0],
      [1, 0],
      [2, 0],
      [2, 2],
      [0, 2],
      [1, 1],
      [0, 1],
    ] as const;
    expect(convexHull(square, 1e-9)).toEqual([
      [0, 0],
      [2, 0],
      [2, 2],
      [0, 2],
    ]);
  });
  it('rolls a regular prism of k sides by its side length and 360/k degrees a step, like a wheel never slipping', () => {
    for (const k of [3, 5, 6, 8]) {
      const hull = Array.from(
        { length: k },
        (_, i) =>
          [
            Math.cos((2 * Math.PI * (i - 0.5)) / k - Math.PI / 2),
            Math.sin((2 * Math.PI * (i - 0.5)) / k - Math.PI / 2),
          ] as const,
      );
      const roll = rollOf(hull);
      const side = 2 * Math.sin(Math.PI / k);
      expect(roll.sides).toBe(k);
      for (let s = 0; s < 2 * k; s++) expect(roll.travel(s)).toBeCloseTo(s * side, 9);
      expect(Math.abs(roll.at(0, 0.5).angle - roll.at(0, 0).angle)).toBeCloseTo(Math.PI / k, 9);
    }
  });
});

describe('tumble', () => {
  const on = (values: object, frame: number, body = cube) => make('tumble', { ...values }, body, frame);
  it('a bevelled box makes the quarter turns of the plain one, and so does one of fewer faces; both close', async () => {
    await loadDecimation();
    const bevelled = make('bevel', { width: 0.1, segments: 3 }, make('box', { size: [1, 1, 1] }));
    for (const body of [
      bevelled,
      make('bevel', { width: 0.12, segments: 1 }, cube),
      make('decimate', { share: 60 }, bevelled),
    ]) {
      // After four steps it lies as it did, a stretch further on.
      for (const travel of ['spot', 'row']) {
        const [first, last] = [0, 120].map((f) => on({ travel, steps: 4, rest: 0 }, f, body));
        expect(closureOf(first, last).how, travel).not.toBe('open');
      }
      // Half a turn after two: what was up is down.
      const [start, half] = [0, 60].map((f) => boundsOf(on({ travel: 'back', steps: 2, rest: 0 }, f, body).positions)!);
      expect(half.max[1] - half.min[1]).toBeCloseTo(start.max[1] - start.min[1], 4);
    }
  });
  it('never sinks into the ground and always touches it', () => {
    for (let f = 0; f <= 120; f += 1.5)
      for (const body of [cube, make('box', { size: [2, 1, 0.6] }), make('cylinder', { sides: 6 })]) {
        const { min } = boundsOf(on({ travel: 'back', rest: 0 }, f, body).positions)!;
        expect(min[1]).toBeCloseTo(0, 5);
      }
  });
  it('a cube in four steps ends in its own pose, four cells on; halfway over an edge it stands on its diagonal', () => {
    const alone = (f: number) => on({ travel: 'row', bodies: 1 }, f);
    points(alone(120)).forEach((p, i) =>
      p.forEach((x, k) => expect(x).toBeCloseTo(points(alone(0))[i][k] + (k === 0 ? 4 : 0), 5)),
    );
    const highest = Math.max(...Array.from({ length: 300 }, (_, i) => boundsOf(alone(i / 10).positions)!.max[1]));
    expect(highest).toBeCloseTo(Math.SQRT2, 2);
  });
  it('a slab rolls over its long and short sides in turn', () => {
    const slab = make('box', { size: [2, 1, 1] });
    const alone = (f: number) => boundsOf(on({ travel: 'row', bodies: 1, steps: 4 }, f, slab).positions)!;
    expect([0, 30, 60, 90, 120].map((f) => Number(alone(f).max[1].toFixed(4)))).toEqual([1, 2, 1, 2, 1]);
    expect(alone(120).min[0] - alone(0).min[0]).toBeCloseTo(6, 5);
  });
  it('gathers speed into the landing: the second half of the way takes less time than the first', () => {
    const angle = (f: number) =>
      boundsOf(on({ travel: 'row', bodies: 1, rest: 0, way: 'gather', steps: 1 }, f).positions)!.max[0];
    const end = angle(119.999) - angle(0);
    expect((angle(60) - angle(0)) / end).toBeLessThan(0.45);
  });
  it('closes exactly in a row, on the spot and there and back; one alone does not, and its step says so', () => {
    for (const values of [
      { travel: 'row', bodies: 5 },
      { travel: 'spot' },
      { travel: 'back' },
      { travel: 'row', bodies: 3, steps: 3, heading: '-z' },
    ])
      expect(closureOf(on(values, 0), on(values, 120)).how).toBe('exact');
    expect(closureOf(on({ travel: 'row', bodies: 1 }, 0), on({ travel: 'row', bodies: 1 }, 120)).how).toBe('open');
    expect(stepKind('tumble').seam!({ travel: 'row', bodies: 1 } as never, 120)!.words).toContain('One body alone');
    expect(stepKind('tumble').seam!({ travel: 'spot', bodies: 1 } as never, 120)).toBeNull();
  });
  it('on the spot a cube in one step is another cube in the same place', () =>
    expect(closureOf(on({ travel: 'spot', steps: 1 }, 0), on({ travel: 'spot', steps: 1 }, 120)).how).toBe('permuted'));
  describe('round', () => {
    const round = (values: object, frame: number, body = cube) =>
      on({ travel: 'round', rest: 0, way: 'linear', ...values }, frame, body);
    const bodies: [string, object, Mesh][] = [
      ['a cube, a step a side', { along: 1 }, cube],
      ['a box, two steps a side', { along: 2 }, make('box', { size: [2, 1, 0.6] })],
      ['a bevelled cube', { along: 2 }, make('bevel', { width: 0.1, segments: 3 }, make('box', { size: [1, 1, 1] }))],
      ['a box round a triangle, which it turns at', { corners: 3, along: 4 }, make('box', { size: [2, 1, 0.6] })],
      ['a cube round an octagon, twice', { corners: 8, along: 1, rounds: 2 }, cube],
    ];
    for (const [name, values, body] of bodies)
      it(`${name}: ends as it began, goes on so, touches the ground and jumps nowhere`, () => {
        for (const f of [0, 1, -1, 37.5])
          expect(closureOf(round(values, f, body), round(values, f + 120, body)).how, `${f}`).not.toBe('open');
        let before = round(values, -0.5, body);
        const size = Math.hypot(...boundsOf(body.positions)!.max.map((m, k) => m - boundsOf(body.positions)!.min[k]));
        for (let f = 0; f <= 120; f += 0.5) {
          const now = round(values, f, body);
          expect(boundsOf(now.positions)!.min[1]).toBeCloseTo(0, 4);
          // No more than a fifth of a quarter turn in half a frame.
          expect(meshDistance(before, now).largest, `${f}`).toBeLessThan(0.35 * size);
          before = now;
        }
      });
    it('goes along the sides of a square about the place where it lay, each as long as the others', () => {
      const centre = (f: number) => {
        const { min, max } = boundsOf(round({ along: 2, heading: 'z' }, f).positions)!;
        return [(min[0] + max[0]) / 2, (min[2] + max[2]) / 2];
      };
      const side = boundsOf(cube.positions)!.max[0] - boundsOf(cube.positions)!.min[0];
      const corners = [0, 30, 60, 90].map(centre);
      // From the first towards z, then to its left, which is x seen from above with z down.
      expect(corners[1][1] - corners[0][1]).toBeCloseTo(2 * side, 4);
      expect(corners[2][0] - corners[1][0]).toBeCloseTo(2 * side, 4);
      expect(corners[3][1] - corners[2][1]).toBeCloseTo(-2 * side, 4);
      for (const k of [0, 1]) expect(corners.reduce((sum, c) => sum + c[k], 0)).toBeCloseTo(0, 4);
    });
    it('goes backwards just as it came', () => {
      const body = make('box', { size: [2, 1, 0.6] });
      for (const f of [1, 17, 55, 119])
        expect(meshDistance(round({ along: 2 }, f, body), round({ along: 2 }, f - 120, body)).largest).toBeLessThan(
          1e-4,
        );
    });
  });
  it('says so where a form has nothing to roll over', () => {
    expect(() => on({}, 0, make('geodesic', { frequency: 12 }))).toThrow(StepProblem);
    expect(() => on({}, 0, make('plane', {}))).toThrow('a line');
  });
});

describe('journey', () => {
  const rod = make('cylinder', { radius: 0.1, height: 2, sides: 8, rows: 40 });
  const stick = make('box', { size: [0.2, 0.2, 2], segments: 8 });
  const circle = Array.from(
    { length: 24 },
    (_, i) => [3 * Math.cos((i * Math.PI) / 12), 0, 3 * Math.sin((i * Math.PI) / 12)] as const,
  );
  const go = (values: object, frame: number, body: Mesh = stick) =>
    make('journey', { path: 'drawn', points: circle, ...values }, body, frame);
  it('a body that follows lies along the path: every part keeps its distance from it', () => {
    for (const frame of [0, 33, 100])
      for (const p of points(go({}, frame)))
        expect(Math.abs(Math.hypot(p[0], p[2]) - 3)).toBeLessThan(0.1 * Math.SQRT2 + 0.01);
  });
  it('a stiff one goes straight ahead from the nose', () => {
    const out = points(go({ follows: 0 }, 10));
    const back = out.filter((_, i) => points(stick)[i][2] < -0.99);
    const middle = back.reduce((a, p) => [a[0] + p[0] / back.length, a[1] + p[2] / back.length], [0, 0]);
    expect(Math.hypot(...middle)).toBeCloseTo(Math.hypot(3, 2), 1);
  });
  it('parts arrive later by their distance from the nose: the tail is where the nose was 2 m ago', () => {
    const frames = 120;
    const lag = (2 / (2 * Math.PI * 3)) * frames;
    const tail = (f: number) => points(go({}, f)).filter((_, i) => points(stick)[i][2] < -0.99);
    const nose = (f: number) => points(go({}, f)).filter((_, i) => points(stick)[i][2] > 0.99);
    const centre = (list: number[][]) => list.reduce((a, p) => a.map((x, k) => x + p[k] / list.length), [0, 0, 0]);
    centre(tail(60)).forEach((x, k) => expect(x).toBeCloseTo(centre(nose(60 - lag))[k], 2));
  });
  it('sways more towards the tail, not at all at the nose, and closes with whole swings', () => {
    const off = (values: object, pick: (z: number) => boolean) => {
      const [a, b] = [points(go(values, 13)), points(go({ ...values, sway: 0 }, 13))];
      return Math.max(
        ...a.map((p, i) => (pick(points(stick)[i][2]) ? Math.hypot(...p.map((x, k) => x - b[i][k])) : 0)),
      );
    };
    expect(off({ sway: 0.5 }, (z) => z > 0.999)).toBeCloseTo(0, 6);
    expect(off({ sway: 0.5, waves: 0.1 }, (z) => z < -0.999)).toBeGreaterThan(0.1);
    for (const values of [
      { sway: 0.4, swings: 5 },
      { path: 'wander', seed: 7, held: 'upright' },
      { path: 'wander', ahead: 6, roll: 30 },
    ])
      expect(closureOf(go(values, 0, rod), go(values, 120, rod)).how).toBe('exact');
    expect(closureOf(go({ laps: 1.5 }, 0), go({ laps: 1.5 }, 120)).how).toBe('open');
  });
  it('keeps right and left: the body is turned, not mirrored', () => {
    for (const nose of ['x', '-x', 'y', '-y', 'z', '-z']) {
      const small = make('place', { size: 0.05 }, stick);
      const out = go({ nose, follows: 0 }, 20, small);
      expect(volume(out) / volume(small)).toBeCloseTo(1, 3);
    }
  });
  it('upright keeps the top up', () => {
    const flat = moved(Float32Array.from([0, 1, 0, 0, 0, 0]), axisAngle([0, 1, 0], 0), [0, 0, 0], [0, 0, 0]);
    const body = { ...stick, positions: flat };
    const out = points(make('journey', { path: 'wander', seed: 3, held: 'upright', follows: 0 }, body, 44));
    expect(out[0][1] - out[1][1]).toBeGreaterThan(0.5);
  });
});
