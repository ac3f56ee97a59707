import { MeshCache } from '../evaluate/mesh-cache';
import { EMPTY_MESH, evaluateRibbon } from '../evaluate/ribbon';
import { setValue } from '../piece/addresses';
import { finishParts } from '../finish/parts/index';
import type { SurfaceFeature } from '../finish/surface';
import { linkedValue, linkPiece } from '../piece/link';
import type { Piece, RibbonDoc } from '../piece/piece';
import type { Mesh } from '../shape/mesh';
import type { Detail } from '../steps/step';
import { evaluateNumber, isMoving } from '../time/value';
import { closureOf, meshDistance, sameShape, shapeDistance, type Closure } from './distance';
import type { Finding } from './finding';

/** The linked form of a ribbon of a piece. */
function linkedRibbon(piece: Piece, ribbon: RibbonDoc): RibbonDoc {
  return linkPiece(piece).ribbons.find((r) => r.id === ribbon.id) ?? ribbon;
}

/** Finish features that show a body's rotation though its shape is the same. */
const SHOWS_TURNS: ReadonlySet<SurfaceFeature> = new Set(['brushed', 'bump', 'cut', 'dots', 'wires']);

/** Whether a ribbon's surface is uniform, so that nothing on it shows a round body's rotation. */
function isPlain({ finishes }: RibbonDoc): boolean {
  return finishes.every(
    (f) =>
      (!f.on && f.of !== 'main') ||
      f.parts.every((p) => {
        const { feature } = finishParts.get(p.kind);
        return !p.on || (!p.patterns?.some((x) => x.on) && !(feature && SHOWS_TURNS.has(feature)));
      }),
  );
}

/** The shape of a ribbon at f = `near` and at f = N + `near`, both really evaluated. */
function bothEnds(piece: Piece, ribbon: RibbonDoc, detail: Detail): (near: number) => readonly [Mesh, Mesh] {
  const linked = linkedRibbon(piece, ribbon);
  const { frames } = piece.loop;
  // A cache for each end: nothing made for f = 0 may stand in for f = N, or vice versa.
  const [near, far] = [new MeshCache(), new MeshCache()];
  const at = (frame: number, cache: MeshCache) => evaluateRibbon(linked, piece.loop, frame, detail, cache).mesh;
  return (frame) => [at(frame, near), at(frames + frame, far)];
}

/**
 * Compares a ribbon at f = N with f = 0, both really evaluated.
 *
 * @param onward also compares N + 1 with 1 and N − 1 with −1 if those agree: a shape may meet itself and turn round
 */
export function ribbonClosure(piece: Piece, ribbon: RibbonDoc, detail: Detail, onward = false): Closure {
  if (!ribbon.on) return closureOf(EMPTY_MESH, EMPTY_MESH);
  const ends = bothEnds(piece, ribbon, detail);
  const plain = isPlain(ribbon);
  const closure = closureOf(...ends(0), plain);
  if (!onward || closure.how === 'open') return closure;
  const agree = (step: number) => sameShape(...ends(step), plain);
  return { ...closure, goesOn: agree(1) && agree(-1) };
}

/** Whether a ribbon closes, without measuring how far off it is: a fraction of the work. */
export function ribbonCloses(piece: Piece, ribbon: RibbonDoc, detail: Detail): boolean {
  return !ribbon.on || sameShape(...bothEnds(piece, ribbon, detail)(0), isPlain(ribbon));
}

/**
 * Findings that make a shape turn round at the seam: those whose values alone do so, with all others held still. If no
 * single one does, all together.
 *
 * @param findings gaps of values of the ribbon's own steps
 * @returns their keys
 */
export function turningCauses(piece: Piece, ribbon: RibbonDoc, findings: readonly Finding[], detail: Detail): string[] {
  if (findings.length < 2) return findings.map((f) => f.key);
  const hold = (p: Piece, { address }: Finding) => {
    const value = address && linkedValue(p, address);
    return isMoving(value) ? setValue(p, address!, evaluateNumber(value, { frame: 0, frames: p.loop.frames })) : p;
  };
  const alone = findings.filter((f) => {
    const held = findings.filter((g) => g !== f).reduce(hold, piece);
    const own = held.ribbons.find((r) => r.id === ribbon.id)!;
    return !f.address || ribbonClosure(held, own, detail, true).goesOn === false;
  });
  return (alone.length > 0 ? alone : findings).map((f) => f.key);
}

/**
 * Step sizes around the loop: entry i is the root mean square movement in metres from frame i to the next shown; the
 * last entry is the step across the seam, from frame N − 1 back to frame 0.
 *
 * @param onFrame called after each frame with the number done; false ends the work with null
 */
export async function ribbonSteps(
  piece: Piece,
  ribbon: RibbonDoc,
  detail: Detail,
  onFrame: (done: number) => Promise<boolean> | boolean = () => true,
): Promise<Float64Array | null> {
  const { frames } = piece.loop;
  const sizes = new Float64Array(frames);
  if (!ribbon.on) return sizes;
  const linked = linkedRibbon(piece, ribbon);
  const cache = new MeshCache();
  const at = (frame: number): Mesh => evaluateRibbon(linked, piece.loop, frame, detail, cache).mesh;
  const first = at(0);
  let last: { readonly from: Mesh; readonly size: number } | null = null;
  let before = first;
  for (let f = 0; f < frames; f++) {
    const next = f + 1 < frames ? at(f + 1) : first;
    sizes[f] = stepSize(before, next, last, f === frames - 1);
    last = { from: before, size: sizes[f] };
    before = next;
    if (!(await onFrame(f + 1))) return null;
  }
  return sizes;
}

/**
 * If copies change places between two frames, or equal parts of a form across the seam, the visible step is the distance
 * as sets. That is shorter than the way of the points, by as much as it was in the step before.
 */
function stepSize(
  a: Mesh,
  b: Mesh,
  last: { readonly from: Mesh; readonly size: number } | null,
  acrossSeam: boolean,
): number {
  const { rms } = meshDistance(a, b);
  if (last === null || rms <= 2 * last.size || !(a.copies || acrossSeam)) return rms;
  const usual = shapeDistance(last.from, a).rms;
  return Math.min(rms, shapeDistance(a, b).rms * (usual > 0 ? Math.max(1, last.size / usual) : 1));
}

/** The step across the seam relative to its neighbours: 1 is even, > 1 a pop, < 1 a pause. */
export function seamRatio(sizes: ArrayLike<number>): number {
  const n = sizes.length;
  if (n < 3) return 1;
  const around = (sizes[n - 2] + sizes[0]) / 2;
  if (around === 0) return sizes[n - 1] === 0 ? 1 : Infinity;
  return sizes[n - 1] / around;
}
