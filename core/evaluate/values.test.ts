import { describe, expect, it } from 'vitest';
import { colour, number, toggle, vector, choice, type StoredValue } from '../declare/params';
import { newPiece, newRibbon, newStep } from '../piece/piece';
import type { MotionDoc } from '../time/motion';
import { PLAIN_SURFACE } from '../finish/surface';
import { surfacesOf } from '../finish/finish';
import { withFinish, withScene } from '../fixtures/edit';
import { sceneAt } from './picture-at';
import { evaluateParam, evaluateValues } from '../time/values';

const clock = (frame: number) => ({ frame, frames: 100 });
const wave = (low: number, high: number, over: object = {}): MotionDoc => ({
  motion: 'wave',
  shape: 'sine',
  width: 50,
  low,
  high,
  turns: 1,
  phase: 0,
  rest: 0,
  ...over,
});
const params = {
  count: number('Count', 3, 'How many.', { min: 1, max: 10, soft: [1, 10], integer: true }),
  size: number('Size', 1, 'How large.', { min: 0, max: 5, soft: [0, 5] }),
  angle: number('Angle', 0, 'How far.', { unit: '°', cyclic: 360, min: -36_000, max: 36_000, soft: [-180, 180] }),
  at: vector('At', [1, 2, 3], 'Where.', { min: -10, max: 10, soft: [-3, 3] }),
  kind: choice(
    'Kind',
    'a',
    [
      { value: 'a', title: 'A' },
      { value: 'b', title: 'B' },
    ],
    'Which.',
  ),
  on: toggle('On', true, 'Whether.'),
  tint: colour('Tint', '#336699', 'Its colour.'),
} as const;

describe('values at a moment', () => {
  it('are the defaults where nothing is stored', () => {
    expect(evaluateValues(params, {}, clock(0))).toEqual({
      count: 3,
      size: 1,
      angle: 0,
      at: [1, 2, 3],
      kind: 'a',
      on: true,
      tint: '#336699',
    });
  });
  it('are held to their limits, and whole where they count', () => {
    const at = (stored: Record<string, StoredValue>, frame = 25) => evaluateValues(params, stored, clock(frame));
    expect(at({ size: { ...wave(0, 5), layers: [{ how: 'add', on: true, motion: wave(3, 3.001) }] } }).size).toBe(5);
    expect(at({ count: wave(1, 4.4) }).count).toBe(4);
    expect(at({ size: { motion: 'formula', text: '-3 - t', otherwise: 0 } }).size).toBe(0);
    expect(at({ at: [wave(0, 4), 0, { motion: 'formula', text: '100*t', otherwise: 0 }] }).at).toEqual([4, 0, 10]);
  });
  it('are never what is no number: sums and products may run over all bounds', () => {
    const huge: MotionDoc = { motion: 'formula', text: '10^300*(2 + sin(2*pi*t))', otherwise: 0 };
    const product: MotionDoc = {
      ...huge,
      layers: [
        { how: 'multiply', on: true, motion: huge },
        { how: 'add', on: true, motion: { ...huge, text: '-(10^308)' } },
        { how: 'multiply', on: true, motion: wave(-1, 1) },
      ],
    };
    for (let f = 0; f < 100; f += 7)
      for (const param of [params.size, params.count, params.angle])
        expect(Number.isFinite(evaluateParam(param, product, clock(f)))).toBe(true);
  });
  it('an angle that turns goes on as the same angle, a length that gains goes on gaining', () => {
    const turning: MotionDoc = { motion: 'keys', adds: 360, keys: [{ at: 0, value: 12.3, to: 'linear' }] };
    expect(evaluateParam(params.angle, turning, clock(100))).toBe(12.3);
    expect(evaluateParam(params.angle, turning, clock(250))).toBeCloseTo(192.3, 9);
    expect(
      evaluateParam(params.size, { ...turning, adds: 2, keys: [{ at: 0, value: 1, to: 'linear' }] }, clock(150)),
    ).toBeCloseTo(4, 9);
  });
  it('colours move, too', () => {
    expect(
      evaluateParam(
        params.tint,
        {
          motion: 'gradient',
          stops: [
            { at: 0, colour: '#000000' },
            { at: 0.5, colour: '#ffffff' },
          ],
          blend: 'linear',
          turns: 1,
          phase: 0,
          space: 'rgb',
        },
        clock(25),
      ),
    ).toMatch(/^#(7f|80){3}$/);
  });
});

describe('scene and finish', () => {
  const turned = withScene(newPiece('S'), 'cameras', {
    distance: wave(4, 8),
    azimuth: { motion: 'keys', adds: 360, keys: [{ at: 0, value: 0, to: 'linear' }] } as MotionDoc,
  });
  const piece = {
    ...withScene(turned, 'backdrop', {
      colour: { motion: 'cycle', colour: '#d9483b', turns: 1, space: 'oklch' } as MotionDoc,
    }),
    ribbons: [
      {
        ...withFinish(newRibbon('box', 0), { colour: '#112233', roughness: wave(0, 100), metalness: 40 }),
        steps: [newStep('box')],
      },
    ],
  };
  it('move with the loop and are the same at f = N', () => {
    expect(sceneAt(piece, 25).camera.position[0]).toBeGreaterThan(0);
    expect(sceneAt(piece, 100)).toEqual(sceneAt(piece, 0));
    expect(sceneAt(piece, 50).backdrop).not.toEqual(sceneAt(piece, 0).backdrop);
    expect(surfacesOf(piece.ribbons[0].finishes, { frame: 25, frames: 100 })).toEqual({
      0: { ...PLAIN_SURFACE, baseColor: '#112233', roughness: 1, metalness: 0.4 },
    });
  });
  it('the camera stands at its distance all the way round', () => {
    for (let f = 0; f < 100; f += 9) {
      const { camera } = sceneAt(piece, f);
      const expected = 6 + 2 * Math.sin((2 * Math.PI * f) / 100);
      expect(Math.hypot(...camera.position.map((p, k) => p - camera.target[k]))).toBeCloseTo(expected, 6);
    }
  });
});
