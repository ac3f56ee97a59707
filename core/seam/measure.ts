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

/** Parts of a finish on which one sees how a body is turned, though its shape is the same. */
const SHOWS_TURNS: ReadonlySet<SurfaceFeature> = new Set(['brushed', 'bump', 'cut', 'dots', 'wires']);

/** Whether a ribbon's surface is the same all over a body, so that nothing on it shows that a round one has turned. */
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

/** The shape of a ribbon at f = `near` and at f = N + `near`, each really made. */
function bothEnds(piece: Piece, ribbon: RibbonDoc, detail: Detail): (near: number) => readonly [Mesh, Mesh] {
  const linked = linkedRibbon(piece, ribbon);
  const { frames } = piece.loop;
  // A store for each end: nothing that f = 0 made may stand in for f = N, or the other way.
  const [near, far] = [new MeshCache(), new MeshCache()];
  const at = (frame: number, cache: MeshCache) => evaluateRibbon(linked, piece.loop, frame, detail, cache).mesh;
  return (frame) => [at(frame, near), at(frames + frame, far)];
}

/**
 * Geometry of one ribbon at f = N against f = 0, each really evaluated.
 *
 * @param onward whether to compare N + 1 with 1 and N − 1 with −1 as well, where those agree: a shape
 *   may meet itself and turn round there
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

/** Whether a ribbon is not open, without how far it is from that: a fraction of the work where it is. */
export function ribbonCloses(piece: Piece, ribbon: RibbonDoc, detail: Detail): boolean {
  return !ribbon.on || sameShape(...bothEnds(piece, ribbon, detail)(0), isPlain(ribbon));
}

/**
 * Which findings make a shape turn round at the seam: those with whose values alone it still does,
 * all others standing still. Where no single one does, all of them together do.
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
 * Step sizes round the loop as it plays: entry i is how far a ribbon moves (root mean square, in
 * metres) from frame i to the next one shown; the last entry is the one across the seam, from
 * frame N − 1 back to frame 0.
 *
 * @param onFrame called after each frame with the number done; a false answer ends the work, and
 *   the result is null then
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
  let before = first;
  for (let f = 0; f < frames; f++) {
    const next = f + 1 < frames ? at(f + 1) : first;
    sizes[f] = stepSize(before, next, f > 0 ? sizes[f - 1] : Infinity);
    before = next;
    if (!(await onFrame(f + 1))) return null;
  }
  return sizes;
}

/** Where copies have changed places from one frame to the next, what is seen is how far they are apart as a set. */
function stepSize(a: Mesh, b: Mesh, usual: number): number {
  const { rms } = meshDistance(a, b);
  return a.copies && rms > 2 * usual ? Math.min(rms, shapeDistance(a, b).rms) : rms;
}

/** How the step across the seam compares with its neighbours: 1 is even, > 1 a pop, < 1 a pause. */
export function seamRatio(sizes: ArrayLike<number>): number {
  const n = sizes.length;
  if (n < 3) return 1;
  const around = (sizes[n - 2] + sizes[0]) / 2;
  if (around === 0) return sizes[n - 1] === 0 ? 1 : Infinity;
  return sizes[n - 1] / around;
}
