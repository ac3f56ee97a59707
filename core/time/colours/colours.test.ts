import Color from 'colorjs.io';
import { describe, expect, it } from 'vitest';
import type { MotionDoc } from '../motion';
import { colourCourse, evaluateColour } from './index';
import { between, turnHue } from './space';

const channels = (hex: string) => [1, 3, 5].map((i) => parseInt(hex.slice(i, i + 2), 16));
const near = (a: string, b: string, by = 1) =>
  channels(a).forEach((x, i) => expect(Math.abs(x - channels(b)[i]), `${a} ${b}`).toBeLessThanOrEqual(by));
const hex = (c: Color) => {
  const [r, g, b] = c.to('srgb').coords.map((x) => Math.round(Math.max(0, Math.min(1, x ?? 0)) * 255));
  return `#${[r, g, b].map((x) => x.toString(16).padStart(2, '0')).join('')}`;
};

describe('colours, against npm colorjs.io', () => {
  it('a hue turned in OKLCH, where the display can show it', () => {
    let compared = 0;
    for (const from of ['#8a6a5f', '#6f8f76', '#77708f', '#9a8f5a'])
      for (const by of [0, 40, 120, 200, 300]) {
        const c = new Color(from).to('oklch');
        c.coords[2] = ((c.coords[2] ?? 0) + by) % 360;
        if (!c.inGamut('srgb')) continue;
        near(turnHue(from, by, 'oklch'), hex(c));
        compared++;
      }
    expect(compared).toBeGreaterThan(12);
  });
  it('a hue turned on the RGB wheel', () => {
    for (const by of [0, 60, 120, 180, 250]) {
      const c = new Color('#d9483b').to('hsl');
      c.coords[0] = ((c.coords[0] ?? 0) + by) % 360;
      near(turnHue('#d9483b', by, 'rgb'), hex(c));
    }
    expect(turnHue('#ff0000', 120, 'rgb')).toBe('#00ff00');
  });
  it('mixes in OKLCH by the shorter way round, and in RGB straight', () => {
    for (const x of [0, 0.25, 0.5, 0.9, 1]) {
      near(
        between('#8a6a5f', '#6f8f76', 'oklch')(x),
        hex(
          new Color('#8a6a5f').mix(new Color('#6f8f76'), x, {
            space: 'oklch',
            outputSpace: 'srgb',
            hue: 'shorter',
          } as never) as Color,
        ),
      );
      near(
        between('#d9483b', '#3a86b7', 'rgb')(x),
        hex(
          new Color('#d9483b').mix(new Color('#3a86b7'), x, { space: 'srgb', outputSpace: 'srgb' } as never) as Color,
        ),
      );
    }
  });
});

describe('colour motions', () => {
  const at = (m: MotionDoc, f: number) => evaluateColour(m, { frame: f, frames: 60 });
  const ring: MotionDoc = {
    motion: 'gradient',
    stops: [
      { at: 0.1, colour: '#d9483b' },
      { at: 0.4, colour: '#3a86b7' },
      { at: 0.8, colour: '#4c8c4a' },
    ],
    blend: 'linear',
    turns: 1,
    phase: 0,
    space: 'oklch',
  };
  it('show each colour of a ring at its place and lead from the last into the first', () => {
    near(at(ring, 6), '#d9483b');
    near(at(ring, 24), '#3a86b7');
    near(at(ring, 48), '#4c8c4a');
    near(at(ring, 57), between('#4c8c4a', '#d9483b', 'oklch')(0.5), 2);
    near(at({ ...ring, blend: 'hold' }, 23.9), '#d9483b');
    expect(at({ ...ring, stops: [{ at: 0.3, colour: '#123456' }] }, 11)).toBe('#123456');
  });
  it('are exactly the same after a loop of whole turns, and their course says what the rest misses', () => {
    for (const m of [
      ring,
      { motion: 'cycle', colour: '#d9483b', turns: 2, space: 'oklch' },
      { motion: 'follow', of: 'x', delay: 25, otherwise: '#000000', source: ring },
    ] as MotionDoc[])
      for (const f of [0, 7, 31]) for (const loops of [1, -2]) expect(at(m, f + 60 * loops)).toBe(at(m, f));
    expect(colourCourse({ ...ring, turns: 1.5 }, 60).turns).toEqual({ num: 3, den: 2 });
  });
  it('follow another colour, later', () => {
    expect(at({ motion: 'follow', of: 'x', delay: 25, otherwise: '#000000', source: ring }, 39)).toBe(at(ring, 24));
    expect(at({ motion: 'follow', of: 'x', delay: 25, otherwise: '#010203' }, 39)).toBe('#010203');
  });
  it('keep lightness while the hue goes round, as far as the display allows', () => {
    const lightness = (h: string) => new Color(h).to('oklch').coords[0]!;
    for (let f = 0; f < 60; f += 5)
      expect(lightness(at({ motion: 'cycle', colour: '#9a6a5f', turns: 1, space: 'oklch' }, f))).toBeCloseTo(
        lightness('#9a6a5f'),
        1,
      );
  });
});
