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
  /** What stands for what already: a ribbon whose parts are copied into another. */
  readonly as?: ReadonlyMap<string, string>;
  /** Whether an item or a ribbon that is not copied along is where the copies go; without it, everything is. */
  readonly exists?: (id: string) => boolean;
}

export interface Copied {
  readonly piece: Piece;
  /** How many links led to something that is not where the copies go, and were dropped. */
  readonly dropped: number;
}

/**
 * The one way to copy anything of a piece: whatever stands in a (small) piece, with identifiers of its own. What its
 * things followed or named of each other is that of their copies; what they followed or named besides goes on being
 * followed where it is there, and is dropped where it is not: a value that followed it stands at its `otherwise`, a
 * choice of a ribbon is empty. Ribbons and steps are a pair only with what is copied along. Chance stays what it was.
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
  // The settings of rendering have one identifier in every piece.
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
 * Values that name other things, with other identifiers: ribbons that are chosen, and what is followed.
 *
 * @param ids what each is called from now on; what is not among them keeps its name
 * @param exists whether something that is not among them is there to be named; links to what is not are dropped
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
      // “ribbon/item/value”, or “scene/item/value”: the item tells whether it is there.
      if (!leads(path[1] ?? path[0])) {
        onDropped();
        // What was added to it goes on being added to what it stands at.
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

/** A layer is a motion: what stands still there is one that does. */
const moving = (value: unknown): MotionDoc =>
  isMoving(value) ? value : { motion: 'formula', text: String(value), otherwise: value as number };

/** The ribbons of a piece that are a pair with another one of it. */
function pairsWithin({ ribbons }: Piece): Set<string> {
  const all = new Set(ribbons.map((r) => r.id));
  return new Set(ribbons.flatMap((r) => (r.twin !== undefined && all.has(r.twin) ? [r.id, r.twin] : [])));
}

/** Whether something of an identifier is in a piece: an item, a finish or a ribbon. */
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

/** A copy of a ribbon within its piece: what it followed or named of others it goes on following and naming. */
export function copyRibbon(ribbon: RibbonDoc, name: string): RibbonDoc {
  return copyRibbons([ribbon], () => name)[0];
}

/** The same of several: what one of them followed or named of another is that of its copy. */
export function copyRibbons(ribbons: readonly RibbonDoc[], name: (ribbon: RibbonDoc) => string): RibbonDoc[] {
  const copies = copyAll(of(ribbons)).piece.ribbons;
  return copies.map((copy, i) => ({ ...copy, name: name(ribbons[i]) }));
}

/** Copies of some steps of a ribbon, to stand in the same one. */
export function copySteps(ribbon: RibbonDoc, ids: readonly string[]): RibbonDoc['steps'] {
  const steps = ribbon.steps.filter((s) => ids.includes(s.id));
  const held = { ...ribbon, twin: undefined, finishes: [], steps };
  return copyAll(of([held]), { as: new Map([[ribbon.id, ribbon.id]]) }).piece.ribbons[0].steps;
}

/** A finish on another ribbon: its parts and their patterns with identifiers of their own. */
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
