import { describe, expect, it } from 'vitest';
import { dot } from '../../maths/vec3';
import type { LightAt } from '../../scene/kind';
import { white } from '../fixture';
import { LAMP_NUMBERS, lampsOf, packLamps } from './lamps';

describe('lamps as they are laid out', () => {
  it('an area has two edges square to each other and to the way it shines, as long as it is large', () => {
    const area = {
      type: 'area',
      radiance: 2,
      at: [1, 3, -2],
      target: [0, 1, 0],
      width: 3,
      height: 0.5,
      turn: 25,
      seen: true,
      colour: [1, 0.5, 0.25],
      shadow: true,
    } as const;
    const n = packLamps([area]);
    const [u, v, way] = [8, 11, 14].map((at) => [n[at], n[at + 1], n[at + 2]] as const);
    for (const [a, b] of [
      [u, v],
      [u, way],
      [v, way],
    ])
      expect(dot(a, b)).toBeCloseTo(0, 6);
    expect(Math.hypot(...u)).toBeCloseTo(1.5, 6);
    expect(Math.hypot(...v)).toBeCloseTo(0.25, 6);
    expect([n[1], n[2], n[3], n[7], n[19], n[20]]).toEqual([2, 1, 0.5, 1.5, 1, 1]);
  });
  it('the studio brings its own sun, other surroundings none', () => {
    const studio: LightAt = { type: 'studio', strength: 1, turn: 0 };
    const lamps = lampsOf([studio]);
    expect(lamps.map((l) => l.type)).toEqual(['sun']);
    expect(packLamps(lamps).length).toBe(LAMP_NUMBERS);
    expect(lampsOf([white])).toEqual([]);
    expect(lampsOf([{ ...studio, strength: 0 }])).toEqual([]);
  });
});
