import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { describe, expect, it } from 'vitest';
import { sceneAt } from '../../evaluate/picture-at';
import { surfacesOf } from '../../finish/finish';
import { PIECE_VERSION } from '../piece';
import { readPiece } from '../read';

const folder = path.join(import.meta.dirname, '../../fixtures/version-4');

describe('pieces of version 4', () => {
  it('open as they were: floors mirror nothing, looks keep their contrast, nothing is brushed or dotted, no file is named', () => {
    const files = readdirSync(folder).filter((f) => f.endsWith('.json'));
    expect(files.length).toBeGreaterThan(1);
    for (const file of files) {
      const text = readFileSync(path.join(folder, file), 'utf8');
      const old = JSON.parse(text) as { scene: { picture: { kind: string; values: Record<string, number> }[] } };
      const read = readPiece(text);
      if (!read.ok) throw new Error(`${file}: ${read.message}`);
      const { piece } = read;
      expect(piece.version).toBe(PIECE_VERSION);
      const { camera, ground, picture } = sceneAt(piece, 0);
      expect(camera.focusOn).toBeUndefined();
      for (const g of ground) if (g.type === 'catcher') expect(g.mirror).toBe(0);
      const looks = picture.filter((e) => e.type === 'look').map((e) => e.contrast);
      const had = old.scene.picture.filter((e) => e.kind === 'look').map((e) => e.values.contrast / 100);
      expect(looks).toEqual(had);
      for (const ribbon of piece.ribbons)
        for (const surface of Object.values(surfacesOf(ribbon.finishes, { frame: 0, frames: piece.loop.frames })))
          expect([surface.anisotropy, surface.dots]).toEqual([0, undefined]);
    }
  });
});
