import { keepable, LIMITS } from '../declare/limits';
import { finishParts } from '../finish/parts/index';
import type { SceneListKind } from '../scene/index';
import { stepKind } from '../steps/index';
import { copyItem } from './copy';
import {
  newChance,
  newItem,
  newRibbon,
  newStep,
  type FinishDoc,
  type Item,
  type PartDoc,
  type Piece,
  type RibbonDoc,
  type StepDoc,
} from './piece';

/** A name with a word appended, within the limit of names. */
export const longerName = (name: string, word: string): string =>
  `${keepable(name, LIMITS.nameOfRibbon - word.length - 1)} ${word}`;

/** A ribbon name that is free in a piece: “Torus”, “Torus 2”. */
export function freeName(name: string, piece: Piece): string {
  const taken = new Set(piece.ribbons.map((r) => r.name));
  let free = name;
  for (let n = 2; taken.has(free); n++) free = longerName(name, `${n}`);
  return free;
}

/** A step as a person adds it: with its fresh values, and a chance of its own. */
export function freshStep(kind: string): StepDoc {
  return { ...newStep(kind, stepKind(kind).fresh), chance: newChance() };
}

/** A ribbon as a person adds it: named after its form, with a free name. */
export function freshRibbon(piece: Piece, form: string): RibbonDoc {
  const { title, fresh } = stepKind(form);
  return { ...newRibbon(form, piece.ribbons.length, freeName(title, piece)), steps: [newStep(form, fresh)] };
}

const ORDER = new Map(finishParts.all.map((p, i) => [p.kind, i]));

/** Parts in the order in which they act, whatever the order of adding. */
export const inOrder = (parts: readonly PartDoc[]): readonly PartDoc[] =>
  [...parts].sort((a, b) => (ORDER.get(a.kind) ?? 0) - (ORDER.get(b.kind) ?? 0));

/** A finish with a part of a kind that is on; the same finish if it is on already. */
export function withPart(finish: FinishDoc, kind: string): FinishDoc {
  const there = finish.parts.find((p) => p.kind === kind);
  if (there?.on) return finish;
  const parts = there
    ? finish.parts.map((p) => (p === there ? { ...p, on: true } : p))
    : inOrder([...finish.parts, newItem(finishParts.get(kind))]);
  return { ...finish, parts };
}

/** A scene list with an item switched. Where only one may be on, another goes off or takes its place. */
export function switched(
  items: readonly Item[],
  id: string,
  on: boolean,
  { kinds, oneOn }: SceneListKind,
): readonly Item[] {
  if (!oneOn) {
    const one = (x: Item) => kinds.get(x.kind).one;
    const alone = on && one(items.find((x) => x.id === id)!);
    return items.map((x) => (x.id === id ? { ...x, on } : alone && one(x) === alone && x.on ? { ...x, on: false } : x));
  }
  const next = on ? id : items.find((x) => x.id !== id)?.id;
  return items.map((x) => ({ ...x, on: x.id === next }));
}

/** A scene list with an item added and on; in a list of one, it replaces the other. A full list stays as it is. */
export function withItem(items: readonly Item[], item: Item, list: SceneListKind): readonly Item[] {
  if (list.most === 1) return [item];
  return items.length >= list.most ? items : switched([...items, item], item.id, true, list);
}

/** A scene list with a copy right behind one of its items. One that is on takes the place of what excludes it; a camera is looked through. */
export function withCopyOf(items: readonly Item[], id: string, list: SceneListKind): readonly Item[] {
  const at = items.findIndex((x) => x.id === id);
  if (at < 0 || items.length >= list.most) return items;
  const copy = copyItem(items[at], list.kinds.get(items[at].kind).params);
  const next = [...items.slice(0, at + 1), copy, ...items.slice(at + 1)];
  return copy.on || list.oneOn ? switched(next, copy.id, true, list) : next;
}
