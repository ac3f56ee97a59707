import { describe, expect, it } from 'vitest';
import { deliveredSize } from '../../output/render-settings';
import { newPiece, PIECE_VERSION } from '../piece';
import { readPiece, writePiece } from '../read';
import { from9to10 } from './9-to-10';

describe('pieces of version 9', () => {
  it('are delivered as large as their picture', () => {
    const old = JSON.parse(writePiece(newPiece('Old'))) as {
      version: number;
      render: { values: Record<string, unknown> };
    };
    old.version = 9;
    delete old.render.values.scale;
    const read = readPiece(JSON.stringify(old));
    expect(read.ok && read.piece.version).toBe(PIECE_VERSION);
    expect(read.ok && read.piece.render.values.scale).toBe(100);
    expect(read.ok && deliveredSize(read.piece)).toEqual({ width: 1080, height: 1080 });
  });
  it('what is no document is left as it is', () => {
    for (const x of [null, 3, [], 'x']) expect(from9to10(x)).toBe(x);
    expect(from9to10({ render: 7 })).toEqual({ render: 7, version: 10 });
  });
});

describe('the size of files', () => {
  const size = (width: number, height: number, scale: number) => {
    const piece = newPiece('Size');
    const render = { ...piece.render, values: { ...piece.render.values, scale } };
    return deliveredSize({ format: { width, height }, render });
  };
  it.each([
    [1080, 1080, 100, 1080, 1080],
    [1080, 1920, 25, 270, 480],
    [1920, 1080, 33, 634, 356],
    [1001, 500, 50, 501, 250],
    [64, 36, 1, 16, 16],
    [1080, 1080, 200, 2160, 2160],
  ])('%d × %d at %d % is %d × %d', (width, height, scale, w, h) =>
    expect(size(width, height, scale)).toEqual({ width: w, height: h }),
  );
});
