import type { Params } from '../declare/params';
import { ALWAYS } from '../finish/documents';
import { FACE_WORDS } from '../finish/surface';
import { finishParts } from '../finish/parts/index';
import { outputs } from '../output/index';
import { renderings } from '../output/rendering';
import { sceneListNames, sceneLists, type SceneList } from '../scene/index';
import { stepKind } from '../steps/index';
import { channelOf } from '../finish/part';
import { patterns } from '../pattern/kinds/index';
import { layerParams } from '../pattern/layer';
import type { PatternDoc } from './piece';
import type { FinishDoc, Item, PartDoc, Piece, RibbonDoc, Values } from './piece';

/**
 * Where a set of declared values stands in a piece. Identifiers are unique in a piece, so `item` alone identifies it.
 */
export type Owner =
  | { readonly type: 'step'; readonly ribbon: string; readonly item: string }
  | { readonly type: 'part'; readonly ribbon: string; readonly item: string }
  | { readonly type: 'pattern'; readonly ribbon: string; readonly item: string }
  | { readonly type: 'scene'; readonly item: string }
  | { readonly type: 'render'; readonly item: string }
  | { readonly type: 'output'; readonly item: string };

/** A set of declared values, its place, and its declaration. */
export interface Owned {
  readonly owner: Owner;
  readonly item: Item;
  readonly params: Params;
  readonly title: string;
  /** Name of the ribbon, or of the place. */
  readonly place: string;
  readonly ribbon?: RibbonDoc;
  /** Of a part of a finish: which finish. */
  readonly finish?: FinishDoc;
  /** Of a layer of a pattern: the part of the finish that it lies on. */
  readonly part?: PartDoc;
}

/** Changes an item; returning the same object leaves it and its containers unchanged. */
export type Change = (owned: Owned) => Item;

/**
 * The one way through everything in a piece that has declared values, in the order of the screen: steps and finishes of
 * each ribbon, then the scene, then rendering and outputs. Addresses, linking, lengthening, copying, pairing and
 * clamping all use it, so that new declarations are known to all of them.
 *
 * @example
 * // All angles a little further:
 * const turned = mapOwners(piece, ({ item, params }) => ({ ...item, values: shifted(params, item.values) }));
 */
export function mapOwners(piece: Piece, change: Change): Piece {
  const ribbons = mapped(piece.ribbons, (r) => mapRibbon(r, change));
  let scene = piece.scene;
  for (const list of sceneListNames) {
    const items = mapped(scene[list], (item) => change(ownedScene(list, item)));
    if (items !== scene[list]) scene = { ...scene, [list]: items };
  }
  const render = change(ownedRender(piece.render));
  const made = mapped(piece.outputs, (item) => change(ownedOutput(item)));
  return ribbons === piece.ribbons && scene === piece.scene && render === piece.render && made === piece.outputs
    ? piece
    : { ...piece, ribbons, scene, render, outputs: made };
}

/** The same for the steps and finishes of one ribbon. */
export function mapRibbon(ribbon: RibbonDoc, change: Change): RibbonDoc {
  const steps = mapped(ribbon.steps, (step) => change(ownedStep(ribbon, step)));
  const finishes = mapped(ribbon.finishes, (finish) => {
    const parts = mapped(finish.parts, (item): PartDoc => {
      const part = change(ownedPart(ribbon, finish, item)) as PartDoc;
      if (!item.patterns) return part;
      const layers = mapped(item.patterns, (p) => change(ownedPattern(ribbon, finish, item, p)) as PatternDoc);
      return layers === item.patterns && part === item ? item : { ...part, patterns: layers };
    });
    return parts === finish.parts ? finish : { ...finish, parts };
  });
  return steps === ribbon.steps && finishes === ribbon.finishes ? ribbon : { ...ribbon, steps, finishes };
}

/** Everything in a piece that has declared values. */
export function ownersOf(piece: Piece): Owned[] {
  return [
    ...piece.ribbons.flatMap((r) => [
      ...r.steps.map((s) => ownedStep(r, s)),
      ...r.finishes.flatMap((f) =>
        f.parts.flatMap((p) => [
          ownedPart(r, f, p),
          ...(p.patterns?.map((pattern) => ownedPattern(r, f, p, pattern)) ?? []),
        ]),
      ),
    ]),
    ...sceneListNames.flatMap((list) => piece.scene[list].map((item) => ownedScene(list, item))),
    ownedRender(piece.render),
    ...piece.outputs.map(ownedOutput),
  ];
}

/** What stands at a place; undefined if nothing does. */
export function ownedAt(piece: Piece, owner: Owner): Owned | undefined {
  if (owner.type === 'output') {
    const item = piece.outputs.find((o) => o.id === owner.item);
    return item && ownedOutput(item);
  }
  if (owner.type === 'render') return owner.item === piece.render.id ? ownedRender(piece.render) : undefined;
  if (owner.type === 'scene') {
    for (const list of sceneListNames) {
      const item = piece.scene[list].find((x) => x.id === owner.item);
      if (item) return ownedScene(list, item);
    }
    return undefined;
  }
  const ribbon = piece.ribbons.find((r) => r.id === owner.ribbon);
  if (!ribbon) return undefined;
  if (owner.type === 'step') {
    const step = ribbon.steps.find((s) => s.id === owner.item);
    return step && ownedStep(ribbon, step);
  }
  for (const finish of ribbon.finishes) {
    for (const part of finish.parts) {
      if (part.id === owner.item) return ownedPart(ribbon, finish, part);
      const layer = part.patterns?.find((p) => p.id === owner.item);
      if (layer) return ownedPattern(ribbon, finish, part, layer);
    }
  }
  return undefined;
}

/** The piece with the values at a place replaced; everything else is shared. */
export function withValues(piece: Piece, owner: Owner, values: (old: Owned) => Values): Piece {
  const change: Change = (o) =>
    o.item.id === owner.item && o.owner.type === owner.type ? { ...o.item, values: values(o) } : o.item;
  if (!('ribbon' in owner)) return mapOwners(piece, change);
  const ribbons = mapped(piece.ribbons, (r) => (r.id === owner.ribbon ? mapRibbon(r, change) : r));
  return ribbons === piece.ribbons ? piece : { ...piece, ribbons };
}

function ownedStep(ribbon: RibbonDoc, item: Item): Owned {
  const { params, title } = stepKind(item.kind);
  return { owner: { type: 'step', ribbon: ribbon.id, item: item.id }, item, params, title, place: ribbon.name, ribbon };
}

function ownedPart(ribbon: RibbonDoc, finish: FinishDoc, item: Item): Owned {
  return {
    owner: { type: 'part', ribbon: ribbon.id, item: item.id },
    item,
    params: finishParts.get(item.kind).params,
    title: partTitle(finish, item),
    place: ribbon.name,
    ribbon,
    finish,
  };
}

/** "Finish" for what every finish has, "Glow" for a part of the main one, "Rods glow" for one of another. */
function partTitle(finish: FinishDoc, part: Item): string {
  const { title } = finishParts.get(part.kind);
  if (ALWAYS.has(part.kind)) return FACE_WORDS[finish.of].title;
  return finish.of === 'main' ? title : `${FACE_WORDS[finish.of].title} ${title.toLowerCase()}`;
}

function ownedPattern(ribbon: RibbonDoc, finish: FinishDoc, part: PartDoc, item: PatternDoc): Owned {
  const partKind = finishParts.get(part.kind);
  const kind = patterns.get(item.kind);
  const target = channelOf(partKind, item.of)?.target;
  return {
    owner: { type: 'pattern', ribbon: ribbon.id, item: item.id },
    item,
    params: target ? layerParams(kind, target) : {},
    title: `${target?.title ?? item.of} ${kind.title.toLowerCase()}`,
    place: ribbon.name,
    ribbon,
    finish,
    part,
  };
}

function ownedScene(list: SceneList, item: Item): Owned {
  const { params, title } = sceneLists[list].kinds.get(item.kind);
  return { owner: { type: 'scene', item: item.id }, item, params, title, place: 'Scene' };
}

function ownedRender(item: Item): Owned {
  const { params, title } = renderings.get(item.kind);
  return { owner: { type: 'render', item: item.id }, item, params, title, place: 'Deliver' };
}

function ownedOutput(item: Item): Owned {
  const { params, title } = outputs.get(item.kind);
  return { owner: { type: 'output', item: item.id }, item, params, title, place: 'Deliver' };
}

/** The list with its items changed; the very same list if none is. */
function mapped<T>(list: readonly T[], change: (item: T) => T): readonly T[] {
  let out: T[] | null = null;
  list.forEach((item, i) => {
    const next = change(item);
    if (next !== item) (out ??= [...list])[i] = next;
  });
  return out ?? list;
}
