import type { SceneAt } from '@maypole/core/evaluate/picture-at';

/**
 * A scene without what costs most where the processor draws: shadows, floors, lit air, lens and effects on the picture.
 * Forms, finishes and the light on them stay.
 */
export function plainScene(scene: SceneAt): SceneAt {
  return {
    ...scene,
    camera: { ...scene.camera, lensRadius: 0, shutter: 0 },
    lights: scene.lights.map((light) => {
      const plain = { ...light, ...('shadow' in light ? { shadow: false } : {}) };
      if ('shade' in plain) delete (plain as { shade?: unknown }).shade;
      return plain;
    }),
    ground: [],
    air: [],
    picture: [],
  };
}
