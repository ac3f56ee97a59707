import { describe, expect, it } from 'vitest';
import { withScene } from '../fixtures/edit';
import { newPiece, newRibbon, newStep, type Piece } from '../piece/piece';
import type { MotionDoc } from '../time/motion';
import { checkSeam, summarise } from './check';
import { readable } from './finding';
import { meshDistance } from './distance';
import { ribbonSteps, seamRatio } from './measure';
import { proveSeam } from './proof';
import { EMPTY_MESH } from '../evaluate/ribbon';
import { meshOf, ConnectivityBuilder } from '../shape/builder';

const wave = (over: object = {}): MotionDoc => ({
  motion: 'wave',
  shape: 'sine',
  low: 0,
  high: 90,
  turns: 1,
  phase: 0,
  ...over,
});

function withTwist(angle: MotionDoc | number, frames = 40): Piece {
  const ribbon = newRibbon('cylinder', 0, 'Pillar');
  return {
    ...newPiece('Test'),
    loop: { frames, fps: 20 },
    ribbons: [
      { ...ribbon, steps: [newStep('cylinder', { sides: 8, rows: 4, capRings: 1 }), newStep('twist', { angle })] },
    ],
  };
}

describe('proof by turns', () => {
  it('whole turns close; the count of moving values is told', () => {
    expect(proveSeam(withTwist(wave({ turns: 3 })))).toMatchObject({ closed: true, moving: 1, truePeriod: 40 });
    expect(proveSeam(withTwist(45))).toMatchObject({ closed: true, moving: 0 });
  });
  it('a value that misses is named with its gap, speeds and repairs', () => {
    const { closed, findings: gaps, truePeriod } = proveSeam(withTwist(wave({ turns: 1.25 })));
    expect(closed).toBe(false);
    expect(truePeriod).toBe(160);
    expect(gaps).toHaveLength(1);
    expect(gaps[0]).toMatchObject({
      title: 'Twist angle',
      place: 'Pillar',
      unit: '°',
      from: 45,
      to: 90,
      kind: 'gap',
      by: 'proof',
    });
    expect(gaps[0].repairs.map((r) => r.words)).toEqual(['1 turn', '2 turns', 'There and back', 'Loop of 160 frames']);
    expect(gaps[0].words).toBe('Turns 1.25 times; a loop needs whole turns. It starts at 45 ° and arrives at 90 °.');
  });
  it('one and a half turns of a sine meet in place but not in speed, and this is said', () => {
    const [gap] = proveSeam(withTwist(wave({ turns: 1.5 }))).findings;
    expect(gap.to).toBeCloseTo(gap.from, 9);
    expect(gap.speedAfter).toBeCloseTo(-gap.speedBefore, 4);
    expect(gap.words).toContain('It meets itself in place, but arrives at -10.6 ° a frame and leaves at 10.6');
  });
  it('fewer than one turn is repaired to one, never to none', () => {
    expect(proveSeam(withTwist(wave({ turns: 0.25 }))).findings[0].repairs[0].words).toBe('1 turn');
    expect(proveSeam(withTwist(wave({ turns: -0.4 }))).findings[0].repairs[0].words).toBe('-1 turn');
  });
  it('a motion without height does not matter; wander always closes', () => {
    expect(proveSeam(withTwist(wave({ turns: 1.3, low: 5, high: 5 }))).closed).toBe(true);
    expect(proveSeam(withTwist({ motion: 'wander', low: 0, high: 9, rate: 2.3, octaves: 2, seed: 4 })).closed).toBe(
      true,
    );
  });
  it('the true period is the least common multiple of all turns', () => {
    const piece = withTwist(wave({ turns: 0.5 }));
    const moved = withScene(piece, 'cameras', { azimuth: wave({ turns: 1 / 3 }) });
    expect(proveSeam(moved).truePeriod).toBe(240);
    expect(proveSeam(moved).findings.map((g) => g.place)).toContain('Scene');
  });
});

describe('measurement', () => {
  it('finds a closed piece closed to the last bit, with an even step across the seam', async () => {
    const report = await checkSeam(withTwist(wave({ turns: 2 })));
    expect(report.closed).toBe(true);
    expect(report.ribbons[0].closure).toEqual({ how: 'exact', byPoint: { largest: 0, rms: 0, by: 'vertex' } });
    // A sine is fastest at phase 0, so the step is a little above its neighbours, by the curve itself.
    expect(report.ribbons[0].seamRatio).toBeGreaterThan(0.9);
    expect(report.ribbons[0].seamRatio).toBeLessThan(1.1);
    expect(summarise(report)).toBe('Test: closed. 1 moving value, frame 40 is frame 0 exactly.');
  });
  it('tells what moves: values, things that move by themselves, both, or nothing', async () => {
    const spun = (piece: Piece, turns: number): Piece => ({
      ...piece,
      ribbons: piece.ribbons.map((r) => ({ ...r, steps: [...r.steps, newStep('spin', { turns })] })),
    });
    const told = async (piece: Piece) => summarise(await checkSeam(piece, 'draft', false)).split(', frame')[0];
    expect(await told(withTwist(45))).toBe('Test: closed. Nothing moves');
    expect(await told(spun(withTwist(45), 1))).toBe('Test: closed. 1 thing moves by itself');
    expect(await told(spun(spun(withTwist(45), 1), 2))).toBe('Test: closed. 2 things move by themselves');
    expect(await told(spun(withTwist(wave({ turns: 2 })), 1))).toBe(
      'Test: closed. 1 moving value, 1 thing moves by itself',
    );
  });
  it('measures a gap as the chord of the angle missed, at the rim', async () => {
    // Twisted by 45° at frame 0 and 90° at N, the cap is turned by half of that either way.
    const report = await checkSeam(withTwist(wave({ turns: 1.25 })));
    expect(report.closed).toBe(false);
    expect(report.ribbons[0].closure.byPoint.largest).toBeCloseTo(2 * 0.7 * Math.sin((22.5 / 2) * (Math.PI / 180)), 5);
    expect(report.ribbons[0].seamRatio).toBeGreaterThan(3);
    expect(summarise(report)).toContain('1 gap. Largest distance 0.273 m, at Pillar.');
  });
  it('step sizes are those of the motion itself', async () => {
    const steps = (await ribbonSteps(
      withTwist(wave({ shape: 'saw', high: 360 })),
      withTwist(wave({ shape: 'saw', high: 360 })).ribbons[0],
      'draft',
    ))!;
    for (let f = 1; f < 38; f++) expect(steps[f] / steps[0]).toBeCloseTo(1, 2);
  });
  it('stops when told to', async () => {
    const piece = withTwist(wave());
    let seen = 0;
    expect(await ribbonSteps(piece, piece.ribbons[0], 'draft', (done) => (seen = done) < 5)).toBeNull();
    expect(seen).toBe(5);
  });
  it('ratio: 1 is even, above a pop, below a pause', () => {
    expect(seamRatio([1, 1, 1, 1])).toBe(1);
    expect(seamRatio([1, 1, 1, 3])).toBe(3);
    expect(seamRatio([2, 2, 2, 0])).toBe(0);
    expect(seamRatio([0, 0, 0, 0])).toBe(1);
    expect(seamRatio([0, 0, 0, 1])).toBe(Infinity);
  });
});

describe('distance of shapes', () => {
  const cloud = (points: number[][]) => {
    const faces = new ConnectivityBuilder();
    faces.face(points.map((_, i) => i));
    return meshOf(faces.finish(points.length), Float32Array.from(points.flat()));
  };
  it('by vertex: largest and root mean square', () => {
    const a = cloud([
      [0, 0, 0],
      [1, 0, 0],
      [0, 1, 0],
    ]);
    const b = { ...a, positions: Float32Array.from([0, 0, 3, 1, 0, 0, 0, 1, 4]) };
    expect(meshDistance(a, b)).toEqual({ largest: 4, rms: Math.sqrt(25 / 3), by: 'vertex' });
  });
  it('by nearest point where the connectivity differs, as trying all pairs finds', () => {
    const random = (n: number, seed: number) =>
      Array.from({ length: n }, (_, i) =>
        [0, 1, 2].map((k) => Math.abs(Math.sin((i + 1) * (k + 2) * 12.9898 * seed)) * 5),
      );
    const [p, q] = [random(60, 1), random(85, 2)];
    const near = (x: number[], all: number[][]) =>
      Math.min(...all.map((y) => Math.hypot(x[0] - y[0], x[1] - y[1], x[2] - y[2])));
    const all = [...p.map((x) => near(x, q)), ...q.map((x) => near(x, p))];
    const d = meshDistance(cloud(p), cloud(q));
    expect(d.by).toBe('set');
    expect(d.largest).toBeCloseTo(Math.max(...all), 5);
    expect(d.rms).toBeCloseTo(Math.sqrt(all.reduce((s, x) => s + x * x, 0) / all.length), 5);
  });
  it('is 0 between two empty shapes and endless to an empty one', () => {
    expect(meshDistance(EMPTY_MESH, EMPTY_MESH).largest).toBe(0);
    expect(
      meshDistance(
        cloud([
          [0, 0, 0],
          [1, 0, 0],
          [0, 1, 0],
        ]),
        EMPTY_MESH,
      ).largest,
    ).toBe(Infinity);
  });
  it('writes lengths readably', () => expect([0, 0.123456, 12345.6].map(readable)).toEqual(['0', '0.123', '12300']));
});
