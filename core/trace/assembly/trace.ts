import { prepareTraversal } from './node';
import { prepareSampler } from './sampler';
import { prepareSurfaces } from './surface';

export { triangleBoxes } from './packet';
export { longTriangles, putPieces } from './pieces';
export { moveTree, refitTree } from './refit';
export { buildTree } from './tree';
export { takeScene } from './scene';
export { addSamples } from './pixels';
export { takeBy } from './weigh';
export { beginSample, next } from './sampler';
export { atan2Turns, beta, exp, log, sinTurns } from './maths';
export { fresnel } from './surface';
export { filmTable, thinFilm, filmRed, filmGreen, filmBlue } from './film';
export { ownBytes } from './own';
export { askedAt } from './place';
export { denoise, denoiseRoom } from './denoise';
export { layCargo, layRows, readCargo, readRows } from './planes';
export * from './probe';

/** Once for each memory: tables that do not depend on a scene. */
export function prepare(): void {
  prepareSampler();
  prepareSurfaces();
  prepareTraversal();
}
