import { describe, expect, it } from 'vitest';
import { sceneAt } from '../evaluate/picture-at';
import { newItem, newPiece } from '../piece/piece';
import { daylightSky, sunlightLeft } from './daylight';
import { lights } from './index';
import { isLamp, environmentOf } from './kind';

const sunAt = (degrees: number): [number, number, number] => {
  const h = (degrees * Math.PI) / 180;
  return [0, Math.sin(h), Math.cos(h)];
};
const luminance = ([r, g, b]: readonly number[]) => 0.2126 * r + 0.7152 * g + 0.0722 * b;

describe('daylight', () => {
  it('straight above is what the model says of its zenith, in luminance and in chroma', () => {
    for (const height of [15, 40, 70])
      for (const turbidity of [2, 4, 8]) {
        const { zenith, colour } = daylightSky(sunAt(height), turbidity);
        const up = colour([0, 1, 0]);
        expect(luminance(up)).toBeCloseTo(zenith.Y, 1);
        // A clear sky overhead is blue: bluer than daylight of 6500 K (x 0.3127, y 0.3290, CIE D65).
        if (turbidity < 5) expect(up[2]).toBeGreaterThan(up[0]);
      }
  });
  it('of a clear sky at a sun height of 60° is some thousand candela a square metre, more at noon than in the evening', () => {
    const noon = daylightSky(sunAt(60), 2.5).zenith.Y;
    expect(noon).toBeGreaterThan(2);
    expect(noon).toBeLessThan(12);
    expect(daylightSky(sunAt(5), 2.5).zenith.Y).toBeLessThan(noon / 3);
  });
  it('is brightest about the sun, is nowhere below nothing, and is the same on both sides of it', () => {
    const sky = daylightSky(sunAt(30), 3);
    const at = (degrees: number, side = 0) => {
      const [, y, z] = sunAt(degrees);
      return luminance(sky.colour([side, y, Math.sqrt(Math.max(0, z * z - side * side))]));
    };
    expect(at(30)).toBeGreaterThan(3 * at(80));
    for (let h = 1; h < 90; h += 7) expect(at(h)).toBeGreaterThan(0);
    expect(at(40, 0.3)).toBeCloseTo(at(40, -0.3), 12);
  });
  it('leaves most of the sun high above, little and red at the horizon (air mass 1 and about 38, Kasten 1966)', () => {
    const [high, low] = [sunlightLeft(sunAt(90), 2.5), sunlightLeft(sunAt(0.5), 2.5)];
    for (const c of high) expect(c).toBeGreaterThan(0.55);
    expect(luminance(low)).toBeLessThan(0.1);
    expect(low[0]).toBeGreaterThan(20 * low[2]);
  });
  it('brings its sun with it as a lamp from where the sky is brightest, which a loop turns round once', () => {
    const piece = newPiece();
    const turn = { motion: 'keys', adds: 360, keys: [{ at: 0, value: 20, to: 'linear' }] };
    const item = newItem(lights.get('daylight'), { height: 25, turn: turn as never, strength: 50 });
    const at = (frame: number) => sceneAt({ ...piece, scene: { ...piece.scene, lights: [item] } }, frame).lights;
    const [sky, sun] = [environmentOf(at(0))!, at(0).find(isLamp)!];
    if (sky.type !== 'daylight' || sun.type !== 'sun') throw new Error('Another sort of light.');
    expect([sky.turn, at(0).length]).toEqual([20, 2]);
    const a = (20 * Math.PI) / 180;
    const turned = [Math.sin(a) * sky.sun[2], sky.sun[1], Math.cos(a) * sky.sun[2]];
    turned.forEach((x, k) => expect(sun.from[k]).toBeCloseTo(x, 12));
    const later = at(100).find(isLamp)!;
    if (later.type !== 'sun') throw new Error('Another sort of light.');
    later.from.forEach((x, k) => expect(x).toBeCloseTo(sun.from[k], 9));
    const none = newItem(lights.get('daylight'), { sun: 0 });
    expect(sceneAt({ ...piece, scene: { ...piece.scene, lights: [none] } }, 0).lights).toHaveLength(1);
  });
});
