import { noises } from '@maypole/core/noise/kinds/index';
import { layersOf, type NoiseSettings } from '@maypole/core/noise/noise';
import { permutation } from '@maypole/core/noise/permutation';
import { describe, expect, it } from 'vitest';
import { splitTriples, uvSplit } from '../objects/uv-split';
import { noiseNodes } from './noise-nodes';
import { PatternTables } from './noise-tables';

const settings = (more: Partial<NoiseSettings> = {}): NoiseSettings => ({
  kind: 'gradient',
  scale: 1,
  stretch: [1, 1, 1],
  octaves: 3,
  contrast: 1,
  brightness: 0,
  low: -1,
  high: 1,
  absolute: false,
  invert: false,
  seed: 2,
  rate: 1,
  ...more,
});

describe('noise on the graphics card', () => {
  it('is there for every kind that core has', () => {
    expect(Object.keys(noiseNodes).sort()).toEqual(noises.all.map((k) => k.kind).sort());
  });

  it('has the tables of core, a row for each octave', () => {
    const tables = new PatternTables();
    tables.begin();
    expect(tables.noise(settings(), { frame: 3, frames: 10 })).toBe(0);
    expect(tables.noise(settings({ kind: 'flow' }), { frame: 3, frames: 10 })).toBe(3);
    const ramp = tables.ramp(Float32Array.from({ length: 768 }, (_, i) => i));
    expect(ramp).toBe(3 + 12);
    tables.end();
    const data = tables.texture.image.data as Float32Array;
    const seeds = layersOf(settings()).layers.map((l) => l.seed);
    for (const [row, seed] of seeds.entries())
      for (const i of [0, 9, 255]) expect(data[1024 * row + 4 * i]).toBe(permutation(seed)[i]);
    expect(data[1024 * ramp + 4 * 7 + 1]).toBe(22);
    const { version } = tables.texture;
    tables.begin();
    tables.noise(settings(), { frame: 3, frames: 10 });
    tables.end();
    expect(tables.texture.version, 'what has not changed is not sent again').toBe(version);
    tables.begin();
    tables.noise(settings(), { frame: 4, frames: 10 });
    tables.end();
    expect(tables.texture.version).toBeGreaterThan(version);
  });
});

describe('places on the surface', () => {
  it('give a vertex twice where they come round there, and its points along with it', () => {
    const topology = {
      key: 'k',
      triangles: Uint32Array.of(0, 1, 2, 2, 1, 0),
      uv: Float32Array.of(0, 0, 0.5, 0, 0.5, 1, 0.5, 1, 0.5, 0, 1, 0),
      edges: new Uint32Array(),
      lines: new Uint32Array(),
      groups: [],
      closed: false,
    };
    const split = uvSplit(topology, 3);
    expect([...split.more]).toEqual([0]);
    expect([...split.triangles]).toEqual([0, 1, 2, 2, 1, 3]);
    expect([...split.uv]).toEqual([0, 0, 0.5, 0, 0.5, 1, 1, 0]);
    expect([...splitTriples(Float32Array.of(1, 2, 3, 4, 5, 6, 7, 8, 9), split)].slice(9)).toEqual([1, 2, 3]);
  });
});
