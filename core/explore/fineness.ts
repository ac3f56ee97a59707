import type { Owned } from '../piece/walk';
import { stepKind } from '../steps/index';

/** Whole numbers of forms, curves and solids that are seen as another shape, and not as a finer or coarser one. */
const SHAPES = new Set([
  'cord.p',
  'cord.q',
  'curve.p',
  'curve.q',
  'medal.points',
  'outline.points',
  'sweep.points',
  'drops.count',
  'endless.rounds',
  'endless.cells',
]);
const FINE_GROUPS: readonly string[] = ['form', 'curve', 'solid', 'detail'];
/** Further values that are no matter of taste: how finely something is made, and what is promised of the form so that it closes. */
const FINE = new Set(['struts.sides', 'links.sides', 'links.most', 'tumble.steps', 'spin.symmetry']);

/** Whether a value says how finely a form is made, or what is so of it, and not what it is to look like. */
export function isFineness({ owner, item, params }: Pick<Owned, 'owner' | 'item' | 'params'>, name: string): boolean {
  const param = params[name];
  if (owner.type !== 'step' || param.type !== 'number' || !param.integer || param.seeds) return false;
  const own = `${item.kind}.${name}`;
  return FINE.has(own) || (FINE_GROUPS.includes(stepKind(item.kind).group) && !SHAPES.has(own));
}
