import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { describe, expect, it } from 'vitest';
import { MeshCache } from '../../evaluate/mesh-cache';
import { evaluateRibbon } from '../../evaluate/ribbon';
import { PIECE_VERSION } from '../piece';
import { readPiece } from '../read';
import { from5to6 } from './5-to-6';

const folder = path.join(import.meta.dirname, '../../fixtures/version-5');

describe('pieces of version 5', () => {
  it('open as they were: endless forms are the faces that were made of them', () => {
    const files = readdirSync(folder).filter((f) => f.endsWith('.json'));
    expect(files.length).toBeGreaterThan(1);
    let endless = 0;
    for (const file of files) {
      const read = readPiece(readFileSync(path.join(folder, file), 'utf8'));
      if (!read.ok) throw new Error(`${file}: ${read.message}`);
      const { piece } = read;
      expect(piece.version).toBe(PIECE_VERSION);
      for (const ribbon of piece.ribbons.filter((r) => r.steps[0]?.kind === 'endless')) {
        endless++;
        expect(ribbon.steps[0].values.drawn).toBe('faces');
        const only = { ...ribbon, steps: [ribbon.steps[0]] };
        expect(evaluateRibbon(only, piece.loop, 0, 'final', new MeshCache()).mesh.field).toBeUndefined();
      }
    }
    expect(endless).toBeGreaterThan(0);
  });
  it('takes anything without throwing', () => {
    for (const x of [null, 1, 'a', [], {}, { ribbons: 3 }, { ribbons: [null, { steps: [1, { kind: 'endless' }] }] }])
      expect(() => from5to6(x)).not.toThrow();
  });
});
