import { describe, expect, it } from 'vitest';
import { surfaceOf } from '../finish/finish';
import { presets, presetFinish } from '../finish/presets';
import { sceneAt } from '../evaluate/picture-at';
import { newItem, newPiece, newRibbon } from '../piece/piece';
import { readPiece, writePiece } from '../piece/read';
import { ownersOf } from '../piece/walk';
import { cameras, lights } from '../scene/index';
import { finishLook, sceneLook, withFinishLook, withSceneLook } from './look';

const through = (look: ReturnType<typeof newPiece>) => {
  const read = readPiece(writePiece(look));
  if (!read.ok) throw new Error(read.message);
  return read.piece;
};
const now = { frame: 0, frames: 10 };

describe('looks that are kept', () => {
  it('a finish is the same surface again, with identifiers of its own', () => {
    for (const preset of presets) {
      const finish = presetFinish(preset);
      const ribbon = newRibbon('torus', 0);
      const look = through(finishLook('Kept', ribbon, finish));
      const { piece } = withFinishLook({ ...newPiece(), ribbons: [ribbon] }, ribbon.id, look);
      const { parts } = piece.ribbons[0].finishes[0];
      expect(surfaceOf({ ...finish, parts }, now)).toEqual(surfaceOf(finish, now));
      for (const p of parts) expect(finish.parts.map((x) => x.id)).not.toContain(p.id);
    }
  });
  it('lights take the place of lights, a camera is added and looked through, a scene is all of it', () => {
    const from = {
      ...newPiece(),
      scene: {
        ...newPiece().scene,
        lights: [newItem(lights.get('area')), newItem(lights.get('sun'))],
        cameras: [newItem(cameras.get('orbit'), { focalLength: 200 })],
      },
    };
    const own = newPiece('Own');
    const lit = withSceneLook(own, 'lights', through(sceneLook('Kept', 'lights', from))).piece;
    expect(sceneAt(lit, 0).lights).toEqual(sceneAt(from, 0).lights);
    expect(lit.scene.cameras).toBe(own.scene.cameras);
    const seen = withSceneLook(own, 'camera', through(sceneLook('Kept', 'camera', from))).piece;
    expect(seen.scene.cameras.length).toBe(2);
    expect(sceneAt(seen, 0).camera.focalLength).toBe(200);
    const whole = withSceneLook(own, 'scene', through(sceneLook('Kept', 'scene', from))).piece;
    expect(sceneAt(whole, 0)).toEqual(sceneAt(from, 0));
    for (const piece of [lit, seen, whole]) {
      const ids = ownersOf(piece).map((o) => o.item.id);
      expect(new Set(ids).size).toBe(ids.length);
    }
  });
});
