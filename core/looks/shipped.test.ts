import { describe, expect, it } from 'vitest';
import { sceneAt } from '../evaluate/picture-at';
import { newPiece } from '../piece/piece';
import { readPiece, writePiece } from '../piece/read';
import { environmentOf } from '../scene/kind';
import { proveSeam } from '../seam/proof';
import { withSceneLook } from './look';
import { shippedScenes } from './shipped';

describe('scenes that come with Maypole', () => {
  it('are sound documents that close, each with a name of its own, light, and one thing round about at most', () => {
    const scenes = shippedScenes();
    expect(new Set(scenes.map((s) => s.name)).size).toBe(scenes.length);
    for (const scene of scenes) {
      const read = readPiece(writePiece(scene));
      if (!read.ok) throw new Error(`${scene.name}: ${read.message}`);
      expect(proveSeam(read.piece).findings).toEqual([]);
      const { lights } = sceneAt(read.piece, 0);
      expect(lights.length).toBeGreaterThan(0);
      expect(environmentOf(lights)).toBeDefined();
    }
  });
  it('are put into a piece with identifiers of their own, so that two uses are two scenes', () => {
    const [scene] = shippedScenes();
    const once = withSceneLook(newPiece(), 'scene', scene).piece;
    const twice = withSceneLook(once, 'scene', scene).piece;
    expect(once.scene.lights.map((l) => l.kind)).toEqual(scene.scene.lights.map((l) => l.kind));
    expect(once.scene.lights[0].id).not.toBe(twice.scene.lights[0].id);
  });
});
