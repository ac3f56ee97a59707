import { describe, expect, it } from 'vitest';
import { dot } from '../../maths/vec3';
import type { LightAt } from '../../scene/kind';
import { ball, pictureOf, settings, white, withSky } from '../fixture';
import { TraceMemory } from '../memory/memory';
import { placeEnvironment, environmentMapOf, environmentRotation } from './environment';
import { Tracer } from '../paths/tracer';

describe('the sky as it is laid out', () => {
  it('is taken as often as it is bright: shares rise to 1, rows by the part of the sphere they cover', () => {
    const sky = environmentMapOf([white])!;
    expect(sky.rows.at(-1)).toBeCloseTo(1, 6);
    for (let y = 0; y < sky.height; y++) {
      // Of an even sky the share up to a height is that of the sphere's area, by Archimedes (1 + sin) / 2.
      const edge = ((y + 1) / sky.height - 0.5) * Math.PI;
      expect(sky.rows[y]).toBeCloseTo((1 + Math.sin(edge)) / 2, 3);
      expect(sky.columns[(y + 1) * sky.width - 1]).toBeCloseTo(1, 6);
    }
  });
  it('is turned by a turn: its rows are unit vectors square to each other', () => {
    const turn = environmentRotation([{ ...white, turn: 40, tilt: 25 } as LightAt]);
    const rows = [0, 3, 6].map((i) => [turn[i], turn[i + 1], turn[i + 2]] as const);
    rows.forEach((a, i) => rows.forEach((b, j) => expect(dot(a, b)).toBeCloseTo(i === j ? 1 : 0, 12)));
  });
  it('is nothing where it is dark', () => {
    expect(environmentMapOf([])).toBeNull();
    expect(environmentMapOf([{ ...white, strength: 0 } as LightAt])).toBeNull();
  });
  it('stays where it lies while it is the same, and is the same to see whichever way it came there', () => {
    const studio = { type: 'studio', strength: 1, turn: 0 } as const;
    const picture = (light: LightAt, radius = 0.1) => withSky(pictureOf([{ mesh: ball(radius) }], [light]));
    const traced = (tracer: Tracer, of: ReturnType<typeof picture>, first?: Tracer) => {
      tracer.load(of, settings, first);
      return tracer.samples({ x: 0, y: 0, width: 8, height: 8 }, 0, 4);
    };
    const [one, other] = [new Tracer(), new Tracer()];
    for (const of of [
      picture(studio),
      picture(studio, 0.2),
      picture({ ...studio, turn: 90 }),
      picture({ ...studio, strength: 2 }),
      picture(white),
      pictureOf([{ mesh: ball() }], []),
      picture(studio),
    ]) {
      const fresh = traced(new Tracer(), of);
      expect(traced(one, of)).toEqual(fresh);
      expect(traced(other, of, one)).toEqual(fresh);
    }
    const memory = new TraceMemory();
    const there = placeEnvironment(memory, [studio]);
    memory.put(new Float32Array(100));
    expect(placeEnvironment(memory, [{ ...studio, turn: 90 }], there)).toBe(there);
    expect(memory.mark).toBe(there.end);
    memory.release();
    expect(placeEnvironment(memory, [{ ...studio, strength: 2 }], there)).not.toBe(there);
  });
});
