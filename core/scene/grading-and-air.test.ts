import { describe, expect, it } from 'vitest';
import type { Registry } from '../declare/registry';
import { assetsOfPicture } from '../evaluate/assets';
import { evaluateValues } from '../time/values';
import { newItem, newPiece, newRibbon } from '../piece/piece';
import { airs, backdrops, cameras, grounds, lights, pictureEffects } from './index';
import { focusedOn } from './cameras/orbit';
import type { SceneKind } from './kind';
import { curveSlopes } from './picture/levels';

const clock = { frame: 0, frames: 24 };
function at<T>(kinds: Registry<SceneKind<T>>, kind: string, values: object = {}): T {
  const k = kinds.get(kind);
  return k.at(evaluateValues(k.params, newItem(k, values as never).values, clock), clock);
}

/** What the card does with a curve, in plain numbers. */
function along(heights: readonly number[], x: number): number {
  const slopes = curveSlopes(heights);
  const i = Math.min(3, Math.floor(4 * x));
  const t = 4 * x - i;
  const [t2, t3] = [t * t, t * t * t];
  return (
    heights[i] * (2 * t3 - 3 * t2 + 1) +
    (slopes[i] / 4) * (t3 - 2 * t2 + t) +
    heights[i + 1] * (3 * t2 - 2 * t3) +
    (slopes[i + 1] / 4) * (t3 - t2)
  );
}

describe('the curve of a picture', () => {
  it('is the straight line where nothing is set', () => {
    for (let x = 0; x <= 1; x += 0.05) expect(along([0, 0.25, 0.5, 0.75, 1], x)).toBeCloseTo(x, 12);
  });
  it('goes through its heights, and rises wherever they rise: it never overshoots', () => {
    for (const heights of [
      [0, 0.02, 0.9, 0.95, 1],
      [0, 0, 0.5, 1, 1],
      [0.1, 0.6, 0.62, 0.63, 1],
    ]) {
      heights.forEach((h, i) => expect(along(heights, i / 4)).toBeCloseTo(h, 12));
      for (let x = 0; x < 0.999; x += 0.01)
        expect(along(heights, x + 0.001)).toBeGreaterThanOrEqual(along(heights, x) - 1e-12);
    }
  });
});

describe('lift, gamma, gain', () => {
  it('change nothing as they are declared; grey tints are none', () => {
    const none = at(pictureEffects, 'grade');
    if (none.type !== 'grade') throw new Error('Another effect.');
    for (const k of [0, 1, 2]) {
      expect(none.lift[k]).toBeCloseTo(0, 12);
      expect(none.gamma[k]).toBeCloseTo(1, 12);
      expect(none.gain[k]).toBeCloseTo(1, 12);
    }
  });
  it('lean to the colour of a tint', () => {
    const warm = at(pictureEffects, 'grade', { gainTint: '#C08040', liftTint: '#404080' });
    if (warm.type !== 'grade') throw new Error('Another effect.');
    expect(warm.gain[0]).toBeGreaterThan(1);
    expect(warm.gain[2]).toBeLessThan(1);
    expect(warm.lift[2]).toBeGreaterThan(warm.lift[0]);
  });
  it('looks that have a name are as hard as they say', () => {
    const contrast = (curve: string) => {
      const look = at(pictureEffects, 'look', { curve, contrast: 40 });
      return look.type === 'look' ? look.contrast : NaN;
    };
    const named = ['soft', 'neutral', 'strong', 'stronger'].map(contrast);
    expect(named).toEqual([...named].sort((a, b) => a - b));
    expect([contrast('neutral'), contrast('own')]).toEqual([0, 0.4]);
  });
});

describe('the camera', () => {
  it('that sees parallel blurs as one that sees as much from where it stands: f = 36 mm · distance / span', () => {
    const lens = (values: object) => at(cameras, 'orbit', { fNumber: 2, distance: 10, ...values }).lensRadius;
    expect(lens({ lens: 'parallel', span: 7.2 })).toBeCloseTo(lens({ focalLength: 50 }), 12);
  });
  it('is focused on a point or a ribbon, with a lens that shows it', () => {
    expect(focusedOn({ fNumber: 0 }, [1, 2, 3])).toEqual({ focusBy: 'point', focusAt: [1, 2, 3], fNumber: 1 });
    expect(focusedOn({ fNumber: 2.8 }, { ribbon: 'r' })).toEqual({ focusBy: 'ribbon', focusOn: 'r' });
    expect(at(cameras, 'orbit', { focusBy: 'ribbon', focusOn: 'r' }).focusOn).toBe('r');
    expect(at(cameras, 'orbit', { focusBy: 'ribbon' })).not.toHaveProperty('focusOn');
  });
});

describe('air, ground and what is behind', () => {
  it('air of so many per cent a metre leaves the rest of it after one (Beer–Lambert)', () => {
    for (const kind of ['fog', 'haze'])
      expect(Math.exp(-at(airs, kind, { density: 30 }).extinction)).toBeCloseTo(0.7, 12);
  });
  it('a floor mirrors nothing unless it is asked to', () => {
    expect(at(grounds, 'catcher')).toMatchObject({ mirror: 0 });
    expect(at(grounds, 'catcher', { mirror: 40, rough: 20 })).toMatchObject({ mirror: 0.4, rough: 0.2 });
  });
  it('surroundings turn and lean; a gradient goes from below to above or round', () => {
    expect(at(lights, 'panorama', { file: 'a'.repeat(64), turn: 30, tilt: -10, strength: 250 })).toEqual({
      type: 'panorama',
      file: 'a'.repeat(64),
      strength: 2.5,
      turn: 30,
      tilt: -10,
    });
    const up = at(lights, 'gradient');
    if (up.type !== 'gradient') throw new Error('Another light.');
    // #2B2440 below: its blue in linear light.
    expect(up.ramp[2]).toBeCloseTo(((0x40 / 255 + 0.055) / 1.055) ** 2.4, 4);
  });
  it('a picture of a piece waits for the files that its scene and its finishes name, and for no others', () => {
    const [a, b] = ['a', 'b'].map((c) => c.repeat(64));
    const piece = newPiece();
    expect(assetsOfPicture(piece)).toEqual([]);
    const scene = {
      ...piece.scene,
      lights: [newItem(lights.get('panorama'), { file: a })],
      backdrop: [newItem(backdrops.get('image'), { file: b })],
    };
    expect(assetsOfPicture({ ...piece, scene, ribbons: [newRibbon('imported', 0)] })).toEqual([a, b]);
  });
});
