import type { SceneAt } from './scene-at';
import type { LightAt } from './kind';

/**
 * What needs many sub-frames: antialiasing alone; soft shadows, depth of field or motion blur; or ambient occlusion,
 * which needs the most directions.
 */
export type Softness = 'edges' | 'soft' | 'shade';

/** Recommended sub-frames of a file. */
export const WANTED: Readonly<Record<Softness, number>> = { edges: 8, soft: 32, shade: 64 };

export function softnessOf({ lights, camera }: Pick<SceneAt, 'lights' | 'camera'>): Softness {
  if (lights.some((l) => 'shade' in l && l.shade !== undefined)) return 'shade';
  return lights.some(softShadow) || camera.lensRadius > 0 || camera.shutter > 0 ? 'soft' : 'edges';
}

/** Whether a light casts a soft shadow. */
function softShadow(l: LightAt): boolean {
  if (!('shadow' in l) || !l.shadow) return false;
  return l.type === 'area' || (l.type === 'sun' ? l.angle > 0 : l.radius > 0);
}
