import { describe, expect, it } from 'vitest';
import type { Registry } from '../declare/registry';
import { evaluateValues } from '../time/values';
import { sceneAt } from '../evaluate/picture-at';
import { newItem, newPiece, type Piece } from '../piece/piece';
import { readPieceValue } from '../piece/read';
import { proveSeam } from '../seam/proof';
import { airs, backdrops, cameras, grounds, lights, pictureEffects } from './index';
import type { SceneKind } from './kind';

const clock = (frame = 0) => ({ frame, frames: 24 });
const at = <T>(kinds: Registry<SceneKind<T>>, kind: string, values: object = {}, frame = 0): T => {
  const k = kinds.get(kind);
  return k.at(evaluateValues(k.params, newItem(k, values as never).values, clock(frame)), clock(frame));
};
const wave = (low: number, high: number) => ({
  motion: 'wave',
  shape: 'sine',
  width: 50,
  low,
  high,
  turns: 1,
  phase: 0,
  rest: 0,
});
const length = (v: readonly number[]) => Math.hypot(...v);

describe('lights', () => {
  it('a sun comes from where it is said to: round the upright axis from z, and up from the horizon', () => {
    const from = (azimuth: number, elevation: number) =>
      (at(lights, 'sun', { azimuth, elevation }) as unknown as { from: readonly number[] }).from;
    from(0, 0).forEach((x, k) => expect(x).toBeCloseTo([0, 0, 1][k], 12));
    from(90, 0).forEach((x, k) => expect(x).toBeCloseTo([1, 0, 0][k], 12));
    from(200, 90).forEach((x, k) => expect(x).toBeCloseTo([0, 1, 0][k], 12));
    for (const a of [13, 140, -300]) expect(length(from(a, 31))).toBeCloseTo(1, 12);
  });
  it('at 100 % makes white paper that faces it white: irradiance π, for lamps at three metres (E = I / r²)', () => {
    expect(at(lights, 'sun', { strength: 100 })).toMatchObject({ irradiance: Math.PI });
    for (const kind of ['ball', 'spot'])
      expect((at(lights, kind, { strength: 100 }) as unknown as { intensity: number }).intensity / 3 ** 2).toBeCloseTo(
        Math.PI,
        12,
      );
  });
});

describe('the camera', () => {
  it('has a lens as wide as focal length over f-number: 50 mm at f/2 is 25 mm across', () => {
    const lens = (fNumber: number) => at(cameras, 'orbit', { focalLength: 50, fNumber }).lensRadius;
    expect(2 * lens(2)).toBeCloseTo(0.025, 12);
    expect(lens(0)).toBe(0);
  });
  it('doubles the light with each stop, and focuses from the point it looks at', () => {
    expect([-1, 0, 3].map((exposure) => at(cameras, 'orbit', { exposure }).exposure)).toEqual([0.5, 1, 8]);
    expect(at(cameras, 'orbit', { distance: 5, focus: -2 }).focusDistance).toBe(3);
    expect(at(cameras, 'orbit', { distance: 5, focus: -50 }).focusDistance).toBeGreaterThan(0);
  });
});

describe('air and picture', () => {
  it('fog of density p leaves 1 − p of the light after a metre, and its square after two (Beer–Lambert)', () => {
    const { extinction } = at(airs, 'fog', { density: 20 });
    expect(Math.exp(-extinction)).toBeCloseTo(0.8, 12);
    expect(Math.exp(-2 * extinction)).toBeCloseTo(0.64, 12);
    expect(at(airs, 'fog', { density: 100 }).extinction).toBeLessThan(10);
  });
  it('grain is another in every frame, and the same a loop later; or it stands', () => {
    const thrown = (moves: boolean, frame: number) =>
      (at(pictureEffects, 'grain', { moves, seed: 3 }, frame) as unknown as { throw: number }).throw;
    expect(new Set(Array.from({ length: 24 }, (_, f) => thrown(true, f))).size).toBe(24);
    for (const f of [0, 7, 23]) expect(thrown(true, f + 24)).toBe(thrown(true, f));
    expect(thrown(false, 11)).toBe(thrown(false, 0));
  });
});

describe('everything of a scene', () => {
  const all = (kinds: { all: readonly { kind: string; params: object }[] }) =>
    kinds.all.map((k) => {
      const moving = Object.entries(k.params).filter(([, p]) => p.type === 'number' && p.moves && !p.counts);
      return newItem(
        k as never,
        Object.fromEntries(moving.map(([name, p]) => [name, wave(p.soft[0], p.soft[1])])) as never,
      );
    });
  const piece: Piece = {
    ...newPiece(),
    loop: { frames: 24, fps: 24 },
    scene: {
      cameras: all(cameras),
      lights: all(lights),
      backdrop: all(backdrops).slice(-1),
      ground: all(grounds),
      air: all(airs),
      picture: all(pictureEffects),
    },
  };
  it('moves in every value, is a valid document, and closes', () => {
    const read = readPieceValue(JSON.parse(JSON.stringify(piece)));
    if (!read.ok) throw new Error(`${read.message} ${JSON.stringify(read.faults)}`);
    expect(sceneAt(piece, 24)).toEqual(sceneAt(piece, 0));
    expect(sceneAt(piece, 31)).toEqual(sceneAt(piece, 7));
    expect(sceneAt(piece, 7)).not.toEqual(sceneAt(piece, 0));
    expect(proveSeam(piece).findings.filter((f) => f.kind === 'gap')).toEqual([]);
  });
  it('is finite, whatever the values are within their ranges', () => {
    const numbers = (x: unknown): number[] =>
      typeof x === 'number' ? [x] : typeof x === 'object' && x !== null ? Object.values(x).flatMap(numbers) : [];
    for (let f = 0; f < 24; f++) for (const n of numbers(sceneAt(piece, f))) expect(Number.isFinite(n)).toBe(true);
  });
});
