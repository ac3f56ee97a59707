import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { describe, expect, it } from 'vitest';
import { surfacesOf } from '../../finish/finish';
import { sceneAt } from '../../evaluate/picture-at';
import { PIECE_VERSION } from '../piece';
import { readPiece } from '../read';

const folder = path.join(import.meta.dirname, '../../fixtures/version-3');

describe('pieces of version 3', () => {
  it('open as they were: nothing stands on a ground, no value has a pattern, the lens is what it was', () => {
    const files = readdirSync(folder).filter((f) => f.endsWith('.json'));
    expect(files.length).toBeGreaterThan(1);
    for (const file of files) {
      const text = readFileSync(path.join(folder, file), 'utf8');
      const old = JSON.parse(text) as { scene: { cameras: { values: Record<string, number> }[]; lights: unknown[] } };
      const read = readPiece(text);
      if (!read.ok) throw new Error(`${file}: ${read.message}`);
      const { piece } = read;
      expect(piece.version).toBe(PIECE_VERSION);
      const { camera, ground, lights } = sceneAt(piece, 0);
      expect(ground).toEqual([]);
      expect(lights.length).toBe(old.scene.lights.length);
      for (const l of lights) expect('shade' in l).toBe(false);
      const { fNumber, focalLength } = old.scene.cameras[0].values;
      expect(camera).toMatchObject({ parallel: 0, roll: 0, shift: [0, 0], blades: 0, shutter: 0 });
      if (typeof focalLength === 'number' && typeof fNumber === 'number' && fNumber > 0)
        expect(camera.lensRadius).toBeCloseTo(focalLength / 2000 / fNumber, 12);
      for (const ribbon of piece.ribbons)
        for (const surface of Object.values(surfacesOf(ribbon.finishes, { frame: 0, frames: piece.loop.frames })))
          expect([surface.patterns, surface.wires]).toEqual([[], undefined]);
    }
  });
});
