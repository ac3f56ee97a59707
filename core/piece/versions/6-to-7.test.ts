import { readFileSync } from 'node:fs';
import path from 'node:path';
import { describe, expect, it } from 'vitest';
import { renderSettings } from '../../output/render-settings';
import { PIECE_VERSION } from '../piece';
import { readPiece } from '../read';
import { from6to7 } from './6-to-7';

const read = (name: string) => {
  const file = path.join(import.meta.dirname, '../../fixtures/version-6', `${name}.maypole.json`);
  const result = readPiece(readFileSync(file, 'utf8'));
  if (!result.ok) throw new Error(result.message);
  return result.piece;
};

describe('pieces of version 6', () => {
  it('have what their first output said of frames as their rendering', () => {
    const piece = read('halo');
    expect(piece.version).toBe(PIECE_VERSION);
    expect(renderSettings(piece.render.values)).toMatchObject({
      light: 'quick',
      detail: 'draft',
      look: 'clay',
      range: 'part',
      from: 3,
      to: 9,
      subframes: 32,
      name: '{piece}-{size}',
    });
    expect(piece.outputs.map((o) => [o.id, o.kind, o.values])).toEqual([
      ['output-png', 'png', { depth: '8', clear: false }],
      ['output-mp4', 'mp4', { quality: 'good', plays: 1, whole: false }],
    ]);
  });
  it('without outputs have the usual one', () => {
    const piece = read('isobar-field');
    expect(piece.outputs).toEqual([]);
    expect(renderSettings(piece.render.values)).toMatchObject({ range: 'all', subframes: 8, detail: 'final' });
  });
  it('with a clear backdrop deliver see-through pictures, as they did', () => {
    const old = {
      scene: { backdrop: [{ kind: 'clear' }] },
      outputs: [
        { kind: 'png', values: {} },
        { kind: 'mp4', values: {} },
      ],
    };
    expect(from6to7(old)).toMatchObject({ outputs: [{ values: { clear: true } }, { values: {} }] });
  });
  it('are given an identifier that is not taken', () => {
    expect(from6to7({ ribbons: [{ id: 'render' }, { id: 'render-2' }] })).toMatchObject({ render: { id: 'render-3' } });
  });
  it('takes anything without throwing', () => {
    for (const x of [null, 1, 'a', [], {}, { outputs: 3 }, { outputs: [null, { values: 1 }, { kind: 4 }] }])
      expect(() => from6to7(x)).not.toThrow();
  });
});
