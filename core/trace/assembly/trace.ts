import { prepareTraversal } from './trees/node';
import { prepareSampler } from './base/sampler';
import { prepareSurfaces } from './surfaces/surface';

export { triangleBoxes } from './trees/packet';
export { planSplits, splitTriangles } from './trees/splits';
export { moveTree, refitTree } from './trees/refit';
export { buildTree } from './trees/tree';
export { loadScene } from './base/scene';
export { addSamples } from './paths/pixels';
export { setStrategies } from './lights/mis';
export { beginSample, next } from './base/sampler';
export { atan2Turns, beta, exp, log, sinTurns } from './base/maths';
export { fresnel } from './surfaces/surface';
export { filmTable, thinFilm, filmRed, filmGreen, filmBlue } from './surfaces/film';
export { perThreadBytes } from './base/per-thread';
export { queryAddress } from './paths/shading-point';
export { denoise, denoiseRoom } from './denoise/denoise';
export { layCargo, layRows, readCargo, readRows } from './denoise/planes';
export * from './trees/probe';

/** Once per memory: tables that do not depend on a scene. */
export function prepare(): void {
  prepareSampler();
  prepareSurfaces();
  prepareTraversal();
}
