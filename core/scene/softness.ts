import type { SceneAt } from './scene-at';
import type { LightAt } from './kind';

/**
 * What is only seen in the average of many sub-frames: clean edges alone; soft shadows, depth of field
 * or movement; or light from all round that is kept out of corners, which comes from more directions
 * than a lamp has places.
 */
export type Softness = 'edges' | 'soft' | 'shade';

/** Sub-frames that a file does well to have, by what is soft in it. */
export const WANTED: Readonly<Record<Softness, number>> = { edges: 8, soft: 32, shade: 64 };

export function softnessOf({ lights, camera }: Pick<SceneAt, 'lights' | 'camera'>): Softness {
  if (lights.some((l) => 'shade' in l && l.shade !== undefined)) return 'shade';
  return lights.some(softShadow) || camera.lensRadius > 0 || camera.shutter > 0 ? 'soft' : 'edges';
}

/** Whether a light throws a shadow whose edge is soft. */
function softShadow(l: LightAt): boolean {
  if (!('shadow' in l) || !l.shadow) return false;
  return l.type === 'area' || (l.type === 'sun' ? l.angle > 0 : l.radius > 0);
}
