import type { SceneAt } from '@maypole/core/evaluate/picture-at';

/**
 * A scene without what is expensive in software: shadows, floors, haze, depth of field and picture effects. Shapes,
 * finishes and their light stay.
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
