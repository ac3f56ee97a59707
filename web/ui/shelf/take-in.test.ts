import { newPiece } from '@maypole/core/piece/piece';
import { readPiece, writePiece } from '@maypole/core/piece/read';
import { expect, it, vi } from 'vitest';
import { takeIn, type PieceFile } from './take-in';

const made = vi.hoisted(() => [] as string[]);
vi.mock('../api', () => ({
  createPiece: (source: string) => {
    const read = readPiece(source);
    if (!read.ok) return Promise.reject(new Error(read.message));
    made.push(read.piece.name);
    return Promise.resolve({});
  },
}));

const file = (name: string, text: string, size = text.length): PieceFile => ({
  name,
  size,
  text: () => Promise.resolve(text),
});

it('a broken file among fifty is told, and the others come in', async () => {
  const files = Array.from({ length: 50 }, (_, i) => file(`${i}.json`, writePiece(newPiece(`Piece ${i}`))));
  files[7] = file('broken.json', '{ "maypole": "piece", ');
  files[20] = file('huge.json', '', 1e9);
  files[31] = { name: 'gone.json', size: 1, text: () => Promise.reject(new Error('It is not there any more.')) };
  const shares: number[] = [];
  const { taken, refused } = await takeIn(files, (done) => shares.push(done));
  expect(taken).toBe(47);
  expect(made).toHaveLength(47);
  expect(made.at(-1)).toBe('Piece 49');
  expect(refused.map((r) => r.split(':')[0])).toEqual(['broken.json', 'huge.json', 'gone.json']);
  expect(refused[1]).toContain('is larger than 136 MB');
  expect(shares).toEqual([...Array(50).keys()]);
});
