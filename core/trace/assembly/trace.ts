import { prepareSampler } from './sampler';
import { prepareSurfaces } from './surface';

export { buildTree } from './tree';
export { takeScene } from './scene';
export { addSamples } from './path';
export { beginSample, next } from './sampler';
export { atan2Turns, exp, sinTurns } from './maths';
export { fresnel } from './surface';
export * from './probe';

/** Once for each memory: tables that do not depend on a scene. */
export function prepare(): void {
  prepareSampler();
  prepareSurfaces();
}
