import { LIMITS } from '../declare/limits';
import type { NumberValue } from '../declare/params';
import { addRibbons, clipping, freelyNamed, roomFault, type Pasted } from '../piece/clipping';
import { copyAll, isIn } from '../piece/copy';
import { newChance, newId, newPiece, newRibbon, newStep, type Piece } from '../piece/piece';
import { swingAround, type MotionDoc, type MotionTarget } from '../time/motion';
import { scaledValue, shiftedValue } from '../time/reshape';
import { evaluateNumber, isMoving } from '../time/value';

/** Ribbons as a look, with those they need. */
export const ribbonLook = (name: string, piece: Piece, ids: readonly string[]): Piece => ({
  ...clipping(piece, ids),
  name,
});

/** The piece with copies of a look's ribbons at its end. */
export const withRibbons = (piece: Piece, look: Piece): Pasted => addRibbons(piece, look.ribbons);

/** Steps of a ribbon as a look: all but its form, or given ones. They stand on a sphere, in the first ribbon. */
export function stepsLook(name: string, piece: Piece, ribbon: string, steps?: readonly string[]): Piece {
  const held: Piece = {
    ...piece,
    ribbons: piece.ribbons.map((r) =>
      r.id === ribbon
        ? { ...r, steps: [newStep('geodesic'), ...r.steps.slice(1).filter((s) => !steps || steps.includes(s.id))] }
        : r,
    ),
  };
  const clip = clipping(held, [ribbon]);
  // Their own ribbon comes first: that is how they are found again.
  const ribbons = [...clip.ribbons].sort((a, b) => Number(b.id === ribbon) - Number(a.id === ribbon));
  return { ...clip, name, ribbons };
}

/**
 * The piece with copies of a look's steps at the end of a ribbon. Ribbons that they name come along, shown or hidden as
 * they were.
 */
export function withSteps(piece: Piece, ribbon: string, look: Piece): Pasted {
  // Links between the steps point into the ribbon that receives them.
  const as = new Map(look.ribbons.slice(0, 1).map((r) => [r.id, ribbon]));
  const { piece: copied, dropped } = copyAll({ ...newPiece(), ribbons: look.ribbons }, { as, exists: isIn(piece) });
  const [first, ...others] = copied.ribbons;
  const added = first?.steps.slice(1) ?? [];
  if (added.length === 0) return { ok: false, none: false, message: 'There are no steps in what is kept.' };
  const there = piece.ribbons.find((r) => r.id === ribbon)?.steps.length ?? 0;
  const room = LIMITS.stepsOfRibbon - there;
  const fault =
    added.length > room
      ? `${added.length} steps are kept, and this ribbon has room for ${room} more; remove some first.`
      : roomFault(piece, others.length);
  if (fault) return { ok: false, none: false, message: fault };
  const steps = added.map((s) => ({ ...s, chance: newChance() }));
  const next = piece.ribbons.map((r) => (r.id === ribbon ? { ...r, steps: [...r.steps, ...steps] } : r));
  const ids = steps.map((s) => s.id);
  return { ok: true, piece: { ...piece, ribbons: [...next, ...freelyNamed(piece, others)] }, ids, dropped };
}

/** A value's motion as a look: it moves a sphere up and down. */
export function motionLook(name: string, loop: Piece['loop'], motion: MotionDoc): Piece {
  const plain = newRibbon('geodesic', 0, 'Ball');
  const place = newStep('place', { shift: [0, motion, 0] }, newId());
  return { ...newPiece(name), loop, ribbons: [{ ...plain, steps: [...plain.steps, place] }] };
}

/** A motion for a piece that lacks some of what it followed: those links are dropped. */
export function motionInto(
  piece: Piece,
  motion: MotionDoc,
): { readonly motion: NumberValue; readonly dropped: number } {
  const held = motionLook('Motion', piece.loop, motion);
  const { piece: copied, dropped } = copyAll(held, { exists: isIn(piece) });
  const shift = copied.ribbons[0].steps[1].values.shift as readonly NumberValue[];
  return { motion: shift[1], dropped };
}

/** The motion of a look; undefined for none. */
export function motionFrom(look: Piece): MotionDoc | undefined {
  const shift = look.ribbons[0]?.steps.find((s) => s.kind === 'place')?.values.shift as
    readonly NumberValue[] | undefined;
  const motion = shift?.[1];
  return motion !== undefined && isMoving(motion) ? motion : undefined;
}

/** Samples around the loop for a motion's range. */
const LOOKS = 96;

/** Lowest and highest value over the loop. */
function reachOf(value: NumberValue, frames: number): [low: number, high: number] {
  const all = Array.from({ length: LOOKS }, (_, i) => evaluateNumber(value, { frame: (i * frames) / LOOKS, frames }));
  return [Math.min(...all), Math.max(...all)];
}

/**
 * A motion fitted to another value: with the range of that one or, if it is constant, of a new motion. A motion that
 * travels (an angle, a phase) stays as it is, since it would not close otherwise.
 */
export function motionFor(motion: MotionDoc, now: NumberValue, target: MotionTarget, frames: number): NumberValue {
  if (target.cyclic) return motion;
  const limits = [target.min, target.max] as const;
  const [low, high] = reachOf(motion, frames);
  const to = isMoving(now) ? reachOf(now, frames) : Object.values(swingAround(now, target));
  const factor = high > low ? (to[1] - to[0]) / (high - low) : 1;
  const scaled = scaledValue(motion, factor, limits);
  return shiftedValue(scaled, to[0] - reachOf(scaled, frames)[0], limits);
}
