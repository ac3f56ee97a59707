import { describe, expect, it } from 'vitest';
import { LoopCache, type RibbonGeometry } from './evaluate/loop-cache';

function geometry(key: string, floats = 30, topology = 't'): RibbonGeometry {
  return {
    key,
    parts: [
      {
        key: `${key}/part`,
        topology: {
          key: topology,
          vertexCount: 10,
          triangles: new Uint32Array(3),
          edges: new Uint32Array(2),
          lines: new Uint32Array(0),
          groups: [],
          faces: 1,
          closed: true,
        },
        positions: new Float32Array(floats),
        normals: new Float32Array(floats),
      },
    ],
    problems: [],
    notes: [],
  };
}

/** Bytes of the connectivity that all of them share: a triangle and an edge. */
const SHARED = 5 * 4;

describe('loop cache', () => {
  it('keeps a shape that stands still once, however many frames show it', () => {
    const cache = new LoopCache(SHARED + 240 + 1);
    for (let f = 0; f < 100; f++) cache.set('still', f, geometry('same'));
    expect(cache.room()).toBeGreaterThan(0);
    expect(cache.get('still', 99)?.key).toBe('same');
    expect(cache.held).toBe(SHARED + 240);
    cache.set('other', 0, geometry('second'));
    expect(cache.room()).toBe(0);
  });
  it('lets go of earlier edits first, the longest unused before the others', () => {
    const cache = new LoopCache(SHARED + 2 * 240);
    for (const print of ['first', 'second', 'third']) cache.set(print, 0, geometry(print));
    cache.touch('first');
    cache.trim(new Set(['third']));
    expect(['first', 'second', 'third'].map((p) => cache.get(p, 0) !== undefined)).toEqual([true, false, true]);
    expect(cache.shape('second')).toBeUndefined();
  });
  it('never lets go of what is shown now, even over budget', () => {
    const cache = new LoopCache(1);
    cache.set('now', 0, geometry('a'));
    cache.trim(new Set(['now']));
    expect(cache.get('now', 0)).toBeDefined();
  });
  it('lets go of the frames that come last from the playhead, never of the one shown, where a loop does not fit', () => {
    const cache = new LoopCache(SHARED + 4 * 240);
    for (let f = 0; f < 10; f++) cache.set('loop', f, geometry(`f${f}`));
    cache.shed(7, 10);
    expect([0, 1, 2, 3, 4, 5, 6, 7, 8, 9].filter((f) => cache.get('loop', f))).toEqual([0, 7, 8, 9]);
    expect(cache.room()).toBe(0);
    expect(cache.shape('f3')).toBeUndefined();
  });
  it('keeps a source of copies once, in whatever places it stands at whatever frames', () => {
    const cache = new LoopCache(1e6);
    const instances = {
      matrices: new Float32Array(32),
      numbers: new Uint32Array(2),
      order: new Float32Array(2),
      ids: new Uint32Array(2),
    };
    const at = (key: string): RibbonGeometry => ({
      ...geometry(key, 3000),
      facts: { count: 2, places: 2, order: new Float32Array(2) },
      parts: [{ ...geometry('source', 3000).parts[0], key: 'source', instances }],
    });
    for (let f = 0; f < 40; f++) cache.set('copies', f, at(`f${f}`));
    // 40 frames of a shape of 24 kB would not have found room.
    expect(cache.room()).toBeGreaterThan(0);
    expect(cache.body('source')).toBeDefined();
    expect(cache.keysOf('copies')).toEqual(['f0', 'source']);
  });
  it('knows which topologies are in use', () => {
    const cache = new LoopCache(1e6);
    cache.set('a', 0, geometry('x', 30, 'one'));
    cache.set('a', 1, geometry('y', 30, 'two'));
    expect([...cache.topologies()].sort()).toEqual(['one', 'two']);
    expect(cache.keysOf('a')).toEqual(['x']);
    expect(cache.keysOf('b')).toEqual([]);
  });
});
