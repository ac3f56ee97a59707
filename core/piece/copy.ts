import type { Params, StoredValue } from '../declare/params';
import type { MotionDoc } from '../time/motion';
import { isMoving } from '../time/value';
import {
  newId,
  newPiece,
  type FinishDoc,
  type Item,
  type PartDoc,
  type Piece,
  type RibbonDoc,
  type Values,
} from './piece';
import { mapOwners, ownersOf } from './walk';

/** Where copies go, as far as it matters to what they name. */
export interface CopyOptions {
  /** Known replacements: a ribbon whose parts are copied into another. */
  readonly as?: ReadonlyMap<string, string>;
  /** Whether an item or ribbon that is not copied exists where the copies go; by default everything does. */
  readonly exists?: (id: string) => boolean;
}

export interface Copied {
  readonly piece: Piece;
  /** Number of links that were dropped, since their target does not exist there. */
  readonly dropped: number;
}

/**
 * The one way to copy anything of a piece: the contents of a (small) piece with new identifiers. Links within it point
 * to the copies. Links to anything else stay if the target exists at the destination, and are dropped if not: a
 * follower then stands at its `otherwise`, and a choice of a ribbon is empty. Ribbons and steps are linked pairs only
 * with what is copied along. Chance is kept.
 *
 * Invariant: evaluated beside the original, a copy of whole ribbons is the same shape in every bit.
 */
export function copyAll(piece: Piece, { as, exists = () => true }: CopyOptions = {}): Copied {
  const ids = new Map<string, string>(as);
  const name = (id: string) => void (ids.has(id) || ids.set(id, newId()));
  for (const ribbon of piece.ribbons) {
    name(ribbon.id);
    for (const finish of ribbon.finishes) name(finish.id);
  }
  // Render settings have one identifier in every piece.
  for (const { owner, item } of ownersOf(piece)) if (owner.type !== 'render') name(item.id);

  let dropped = 0;
  const other = (id: string) => ids.get(id) ?? id;
  const values = renaming(ids, exists, () => dropped++);
  const paired = pairsWithin(piece);
  const copy = mapOwners(piece, ({ item, params, owner }) => {
    const { twin, apart, ...rest } = item as Item & { readonly twin?: string };
    return {
      ...rest,
      ...(twin !== undefined && ids.has(twin) && !as?.has(twin) ? { twin: other(twin) } : {}),
      ...(apart && 'ribbon' in owner && paired.has(owner.ribbon) ? { apart } : {}),
      id: other(item.id),
      values: values(item.values, params),
    };
  });
  const ribbons = copy.ribbons.map(({ twin, ...ribbon }): RibbonDoc => ({
    ...ribbon,
    id: other(ribbon.id),
    ...(twin !== undefined && paired.has(twin) ? { twin: other(twin) } : {}),
    finishes: ribbon.finishes.map((f) => ({ ...f, id: other(f.id) })),
  }));
  return { piece: { ...copy, ribbons }, dropped };
}

/**
 * Renames links in values: chosen ribbons, and followed addresses.
 *
 * @param ids new identifiers; others keep their name
 * @param exists whether a target that is not renamed exists; links to missing ones are dropped
 */
export function renaming(
  ids: ReadonlyMap<string, string>,
  exists: (id: string) => boolean = () => true,
  onDropped: () => void = () => undefined,
): (values: Values, params: Params) => Values {
  const other = (id: string) => ids.get(id) ?? id;
  const leads = (id: string) => ids.has(id) || exists(id);
  const relinked = (value: unknown): unknown => {
    if (Array.isArray(value)) return value.map(relinked);
    if (!isMoving(value)) return value;
    const { of, otherwise, layers } = value as MotionDoc & { readonly of?: unknown; readonly otherwise?: unknown };
    if (typeof of === 'string' && of !== '') {
      const path = of.split('/');
      // “ribbon/item/value”, or “scene/item/value”: the item decides whether it exists.
      if (!leads(path[1] ?? path[0])) {
        onDropped();
        // Its layers go on being added to the value it now stands at.
        return layers ? withLayers(moving(otherwise ?? 0), layers) : (otherwise ?? 0);
      }
      return withLayers({ ...value, of: path.map(other).join('/') }, layers);
    }
    return withLayers(value, layers);
  };
  const withLayers = (motion: MotionDoc, layers: MotionDoc['layers']): MotionDoc =>
    layers ? { ...motion, layers: layers.map((l) => ({ ...l, motion: moving(relinked(l.motion)) })) } : motion;
  return (values, params) =>
    Object.fromEntries(
      Object.entries(values).map(([key, x]): [string, StoredValue] => {
        if (params[key]?.type !== 'ribbon') return [key, relinked(x) as StoredValue];
        if (x === '' || leads(x as string)) return [key, other(x as string)];
        onDropped();
        return [key, ''];
      }),
    );
}

/** A layer is a motion: a constant becomes one that stands still. */
const moving = (value: unknown): MotionDoc =>
  isMoving(value) ? value : { motion: 'formula', text: String(value), otherwise: value as number };

/** The ribbons that are a linked pair with another ribbon of the piece. */
function pairsWithin({ ribbons }: Piece): Set<string> {
  const all = new Set(ribbons.map((r) => r.id));
  return new Set(ribbons.flatMap((r) => (r.twin !== undefined && all.has(r.twin) ? [r.id, r.twin] : [])));
}

/** Whether an identifier is in a piece: of an item, a finish or a ribbon. */
export function isIn(piece: Piece): (id: string) => boolean {
  const all = new Set<string>();
  for (const { id, finishes } of piece.ribbons) {
    all.add(id);
    for (const f of finishes) all.add(f.id);
  }
  for (const { item } of ownersOf(piece)) all.add(item.id);
  return (id) => all.has(id);
}

const of = (ribbons: readonly RibbonDoc[]): Piece => ({ ...newPiece(), ribbons });

/** A copy of a ribbon within its piece: it goes on following and naming others. */
export function copyRibbon(ribbon: RibbonDoc, name: string): RibbonDoc {
  return copyRibbons([ribbon], () => name)[0];
}

/** The same for several: links between them point to the copies. */
export function copyRibbons(ribbons: readonly RibbonDoc[], name: (ribbon: RibbonDoc) => string): RibbonDoc[] {
  const copies = copyAll(of(ribbons)).piece.ribbons;
  return copies.map((copy, i) => ({ ...copy, name: name(ribbons[i]) }));
}

/** Copies of some steps of a ribbon, for the same ribbon. */
export function copySteps(ribbon: RibbonDoc, ids: readonly string[]): RibbonDoc['steps'] {
  const steps = ribbon.steps.filter((s) => ids.includes(s.id));
  const held = { ...ribbon, twin: undefined, finishes: [], steps };
  return copyAll(of([held]), { as: new Map([[ribbon.id, ribbon.id]]) }).piece.ribbons[0].steps;
}

/** A finish for another ribbon: its parts and patterns with new identifiers. */
export function copyFinish(
  ribbon: RibbonDoc,
  finish: FinishDoc,
  to: string,
  exists?: CopyOptions['exists'],
): {
  readonly parts: readonly PartDoc[];
  readonly dropped: number;
} {
  const held = { ...ribbon, twin: undefined, finishes: [finish], steps: [] };
  const { piece, dropped } = copyAll(of([held]), { as: new Map([[ribbon.id, to]]), exists });
  return { parts: piece.ribbons[0].finishes[0].parts, dropped };
}

/** A copy of an item of the scene, or of an output, within its piece: what follows within it follows within the copy. */
export function copyItem(item: Item, params: Params): Item {
  const id = newId();
  const { twin: _, apart: __, ...plain } = item as Item & { readonly twin?: string };
  return { ...plain, id, values: renaming(new Map([[item.id, id]]))(item.values, params) };
}
