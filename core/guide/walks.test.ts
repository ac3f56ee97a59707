import { describe, expect, it } from 'vitest';
import { readPiece, writePiece } from '../piece/read';
import { proveSeam } from '../seam/proof';
import { walks, type Seen } from './walks';

const nothing = (piece: Seen['piece']): Seen => ({
  piece,
  before: piece,
  playing: false,
  drawer: null,
  light: 'quick',
  sheet: false,
  closer: false,
  takes: 0,
  renders: 0,
});

describe.each(walks.map((w) => [w.title, w] as const))('%s', (_, walk) => {
  it('begins with a piece that can be saved, and waits at each stop for what it asks for', () => {
    const piece = walk.make();
    expect(readPiece(writePiece(piece))).toMatchObject({ ok: true });
    for (const stop of walk.stops) {
      expect(stop.until?.(nothing(piece)) ?? false, stop.words).toBe(false);
      if (stop.until) expect(stop.at, stop.words).toBeDefined();
      expect(stop.words.length).toBeLessThan(190);
      expect(stop.words).toMatch(/[.?!]$/);
    }
    // The last word is to be read, and the walk ended by hand.
    expect(walk.stops.at(-1)!.until).toBeUndefined();
  });
});

it('only the walk about closing begins with a gap', () => {
  const open = walks.filter((w) => proveSeam(w.make()).findings.some((f) => f.kind === 'gap'));
  expect(open.map((w) => w.id)).toEqual(['make-it-close']);
  expect(walks).toHaveLength(6);
});
