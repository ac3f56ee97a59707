import { describe, expect, it } from 'vitest';
import { newPiece, newRibbon, newStep } from '../piece';
import { readPieceValue } from '../read';
import { from2to3 } from './2-to-3';

describe('version 2 to 3', () => {
  const keys = (to: string) => ({ motion: 'keys', adds: 0, keys: [{ at: 0.2, value: 1, to }] });
  it('keys that were smooth are splines, in lists of numbers and in layers too; other words stay', () => {
    const of = (to: string, version: number) => ({
      version,
      ribbons: [
        {
          steps: [
            {
              values: {
                way: 'smooth',
                list: [keys(to), 2],
                angle: { ...keys('hold'), layers: [{ motion: keys(to) }] },
              },
            },
          ],
        },
      ],
    });
    expect(from2to3(of('smooth', 2))).toEqual(of('spline', 3));
  });
  it('a piece of version 2 is read', () => {
    const ribbon = newRibbon('box', 0);
    const piece = {
      ...newPiece('Early'),
      version: 2,
      ribbons: [{ ...ribbon, steps: [newStep('box'), newStep('twist', { angle: keys('smooth') as never })] }],
    };
    const read = readPieceValue(piece);
    if (!read.ok) throw new Error(read.message);
    expect(read.piece.ribbons[0].steps[1].values.angle).toEqual(keys('spline'));
  });
  it('takes anything without throwing', () => {
    for (const x of [null, 1, 'a', [], {}, { ribbons: 3 }, { motion: 'keys', keys: [null, 1] }])
      expect(() => from2to3(x)).not.toThrow();
  });
});
