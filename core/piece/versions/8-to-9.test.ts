import { describe, expect, it } from 'vitest';
import { writePiece } from '../read';
import { newPiece, newRibbon, newStep, PIECE_VERSION } from '../piece';
import { readPiece } from '../read';
import { from8to9 } from './8-to-9';

interface Old {
  version: number;
  ribbons: { steps: { kind: string; values: Record<string, unknown> }[] }[];
}

describe('pieces of version 8', () => {
  it('tumble as they did: in a row, on the spot, or there and back', () => {
    const now = {
      ...newPiece('Old'),
      ribbons: [{ ...newRibbon('box', 0), steps: [newStep('box'), newStep('tumble', { travel: 'spot', steps: 6 })] }],
    };
    const old = JSON.parse(writePiece(now)) as Old;
    old.version = 8;
    for (const name of ['corners', 'along', 'rounds']) delete old.ribbons[0].steps[1].values[name];
    const read = readPiece(JSON.stringify(old));
    expect(read.ok && read.piece.version).toBe(PIECE_VERSION);
    expect(read.ok && read.piece.ribbons[0].steps[1].values).toMatchObject({ travel: 'spot', steps: 6, corners: 4 });
  });
  it('what is no document is left as it is', () => {
    for (const x of [null, 3, [], 'x']) expect(from8to9(x)).toBe(x);
    expect(from8to9({ ribbons: 7 })).toEqual({ ribbons: 7, version: 9 });
  });
});
