import type { Owned } from '../piece/walk';
import { stepKind } from '../steps/index';

/** Integers of forms, curves and solids that change the shape, and not its resolution. */
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
/** Further values that are no matter of taste: resolution, and symmetry declared so that the form closes. */
const FINE = new Set(['struts.sides', 'links.sides', 'links.most', 'tumble.steps', 'spin.symmetry']);

/** Whether a value is about resolution or symmetry, and not about looks. */
export function isFineness({ owner, item, params }: Pick<Owned, 'owner' | 'item' | 'params'>, name: string): boolean {
  const param = params[name];
  if (owner.type !== 'step' || param.type !== 'number' || !param.integer || param.seeds) return false;
  const own = `${item.kind}.${name}`;
  return FINE.has(own) || (FINE_GROUPS.includes(stepKind(item.kind).group) && !SHAPES.has(own));
}
