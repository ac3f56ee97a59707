import { describe, expect, it } from 'vitest';
import { form, openEdges, step } from '../fixtures/forms';
import { columnsOf, roomBelow } from './columns';
import { boundsOf, eulerCharacteristic, surfaceArea, volume } from './measure';

describe('upright lines through a surface', () => {
  it('meet a sphere at the heights of its equation, and nothing beside it', () => {
    const columns = columnsOf(form('sphere', { radius: 1, meridians: 128, parallels: 64 }));
    for (const [x, z] of [
      [0.1, 0.23],
      [0.5, -0.41],
      [-0.71, 0.13],
    ]) {
      const heights: number[] = [];
      columns.meetings(x, z, (y) => heights.push(y));
      const y = Math.sqrt(1 - x * x - z * z);
      expect(heights).toHaveLength(2);
      expect(Math.max(...heights)).toBeCloseTo(y, 2);
      expect(Math.min(...heights)).toBeCloseTo(-y, 2);
    }
    columns.meetings(0.8, 0.8, () => expect.fail('there is nothing'));
    columnsOf(form('curve')).meetings(0, 0, () => expect.fail('curves have no surface'));
  });
  it('tell how far one form may sink into the hollow of another', () => {
    const bowl = step(
      'rest',
      form('torus', { ringRadius: 1, pipeRadius: 0.3, ringSegments: 96, pipeSegments: 48 }),
      {},
    );
    const ball = form('sphere', { radius: 1, meridians: 96, parallels: 48 });
    // A ball of radius 1 in a ring of radius 1 and thickness 0.3: the middles are 1.3 apart, the ball's √(1.3² − 1²) above the ring's.
    expect(roomBelow(ball, bowl, [0, 5, 0])).toBeCloseTo(5 - 0.3 - Math.sqrt(1.69 - 1), 2);
    expect(roomBelow(ball, bowl, [9, 5, 0])).toBe(Infinity);
  });
});

describe('Rest on another ribbon', () => {
  it('stands where it touches and not on a box round it', () => {
    const ring = form('torus', { ringRadius: 1, pipeRadius: 0.3, ringSegments: 96, pipeSegments: 48 });
    const ball = form('sphere', { radius: 1, meridians: 96, parallels: 48 });
    const stood = step('rest', ball, { on: 'ribbon' }, { other: () => ring });
    expect(boundsOf(stood.positions)!.min[1]).toBeCloseTo(Math.sqrt(0.69) - 1, 2);
    expect(
      boundsOf(step('rest', ball, { on: 'ribbon', gap: 0.2 }, { other: () => ring }).positions)!.min[1],
    ).toBeCloseTo(Math.sqrt(0.69) - 0.8, 2);
    // Beside it, it stands at the height of its top.
    const beside = step('rest', step('place', ball, { shift: [9, 0, 0] }), { on: 'ribbon' }, { other: () => ring });
    expect(boundsOf(beside.positions)!.min[1]).toBeCloseTo(0.3, 5);
  });
});

describe('boxes and wires', () => {
  it('a box may have counts of its own along each axis, and stays closed', () => {
    const made = form('box', { size: [1, 2, 3], uneven: true, counts: [2, 3, 5] });
    expect(made.connectivity.faceStart.length - 1).toBe(2 * (2 * 3 + 3 * 5 + 5 * 2));
    expect(openEdges(made)).toBe(0);
    expect(eulerCharacteristic(made)).toBe(2);
    expect(volume(made)).toBeCloseTo(6, 5);
    expect(surfaceArea(made)).toBeCloseTo(22, 5);
  });
  it('wires have the area of their profile: round, square, star, flat', () => {
    const bar = step('thread', step('repeat-line', form('box', { segments: 1 }), { count: 9, way: [0.5, 0, 0] }), {});
    const across = (values: object) => volume(step('wires', bar, { root: 0.1, tip: 0.1, ...values })) / 4;
    expect(across({ sides: 48 }) / (Math.PI * 0.01)).toBeCloseTo(1, 1);
    expect(across({ profile: 'square', sides: 4 }) / 0.02).toBeCloseTo(1, 1);
    expect(across({ profile: 'flat', flatness: 25, sides: 48 }) / (Math.PI * 0.01 * 0.25)).toBeCloseTo(1, 1);
    const star = across({ profile: 'star', sides: 10 });
    expect(star).toBeGreaterThan(across({ profile: 'flat', flatness: 25, sides: 48 }));
    expect(star).toBeLessThan(across({ profile: 'square', sides: 4 }));
  });
});
