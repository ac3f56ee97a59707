import type { Piece, RibbonDoc, StepDoc } from '../piece/piece';
import { stepKind } from '../steps/index';
import { isFineness } from './fineness';

/** Faces that are as good as any number of them in a picture of some 160 pixels. */
const ENOUGH = 8000;
/** Fewer than this along one side are seen one by one, and left as they are. */
const SMOOTH = 32;
/** Parts of a finish that show edges or points. */
const SHOW_FACES = ['wires', 'dots'];

/**
 * A piece with fewer faces where a very small picture looks the same: forms in rows and columns that are bent or moved, point
 * by point, and nothing else. Whatever works by faces, or shows them, stays as it is.
 *
 * @returns the same ribbons where nothing of them is changed
 */
export function coarser(piece: Piece): Piece {
  const named = JSON.stringify(piece.ribbons.map((r) => r.steps));
  return {
    ...piece,
    // What another ribbon stands on, or is cut by, is not changed for it.
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
