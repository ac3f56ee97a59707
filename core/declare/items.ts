import { defaultsOf, type Params, type StoredValue } from './params';

export type Values = Readonly<Record<string, StoredValue>>;

/** Something declared as it stands in a piece: its kind and its values. */
export interface Item {
  readonly id: string;
  readonly kind: string;
  readonly on: boolean;
  readonly values: Values;
  /** Values that do not go along with those of a paired ribbon; see pair.ts. */
  readonly apart?: readonly string[];
}

/** A layer of a pattern as it stands in a piece: on which value of its part it lies. */
export interface PatternDoc extends Item {
  readonly of: string;
}

/** A part of a finish, and the patterns in which its values go over the surface, by value in the order in which they lie. */
export interface PartDoc extends Item {
  readonly patterns?: readonly PatternDoc[];
}

/** A short identifier, unique enough within a piece; `random` gives 0 ≤ x < 1. */
export function newId(random: () => number = Math.random): string {
  let id = '';
  while (id.length < 8) id += Math.floor(random() * 36).toString(36);
  return id;
}

/** A fresh item of a kind, with its defaults. */
export function newItem(
  kind: { readonly kind: string; readonly params: Params },
  values: Values = {},
  id = newId(),
): Item {
  return { id, kind: kind.kind, on: true, values: { ...defaultsOf(kind.params), ...values } };
}
