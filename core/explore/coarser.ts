import type { Piece, RibbonDoc, StepDoc } from '../piece/piece';
import { stepKind } from '../steps/index';
import { isFineness } from './fineness';

/** More faces than this make no difference in a picture of some 160 pixels. */
const ENOUGH = 8000;
/** Fewer segments along a side are individually visible, and kept. */
const SMOOTH = 32;
/** Finish parts that show edges or points. */
const SHOW_FACES = ['wires', 'dots'];

/**
 * The piece with fewer faces where a very small picture looks the same: forms on a grid that are only bent or moved
 * point by point. What works by faces, or shows them, stays.
 *
 * @returns the same ribbons where nothing changes
 */
export function coarser(piece: Piece): Piece {
  const named = JSON.stringify(piece.ribbons.map((r) => r.steps));
  return {
    ...piece,
    // A ribbon that others stand on, or are cut by, is not changed.
    ribbons: piece.ribbons.map((r) => (named.includes(`"${r.id}"`) ? r : coarserRibbon(r))),
  };
}

function coarserRibbon(ribbon: RibbonDoc): RibbonDoc {
  const [form, ...steps] = ribbon.steps;
  const pointwise = ({ kind, on }: StepDoc) =>
    !on || stepKind(kind).group === 'place' || (stepKind(kind).group === 'deform' && kind !== 'jitter');
  const shows = ribbon.finishes.some((f) => f.on && f.parts.some((p) => p.on && SHOW_FACES.includes(p.kind)));
  if (!form || shows || !steps.every(pointwise)) return ribbon;
  const { params } = stepKind(form.kind);
  const owned = { owner: { type: 'step', ribbon: ribbon.id, item: form.id }, item: form, params } as const;
  const sides = Object.keys(params).filter((name) => isFineness(owned, name));
  const [a, b] = sides.map((name) => form.values[name]);
  if (sides.length !== 2 || typeof a !== 'number' || typeof b !== 'number') return ribbon;
  const share = Math.sqrt(ENOUGH / (a * b));
  if (share >= 1 || Math.min(a, b) * share < SMOOTH) return ribbon;
  const values = { ...form.values, [sides[0]]: Math.round(a * share), [sides[1]]: Math.round(b * share) };
  return { ...ribbon, steps: [{ ...form, values }, ...steps] };
}
