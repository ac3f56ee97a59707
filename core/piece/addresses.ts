import type { ColourParam, ColourValue, NumberParam, NumberValue, Params, StoredValue, VectorParam } from '../declare/params';
import { finishParams } from '../scene/finish';
import { sceneParts, type ScenePart } from '../scene/scene';
import { stepKind } from '../steps/index';
import type { Piece, Values } from './piece';

/** Where a set of declared values stands in a piece. */
export type Owner =
  | { readonly type: 'step'; readonly ribbon: string; readonly step: string }
  | { readonly type: 'finish'; readonly ribbon: string }
  | { readonly type: 'scene'; readonly part: ScenePart };

/** One number of a piece: a value, or one axis of a vector. */
export interface Address {
  readonly owner: Owner;
  readonly param: string;
  /** 0, 1, 2 for x, y, z of a vector; absent for plain numbers. */
  readonly axis?: 0 | 1 | 2;
}

interface ValuePlace {
  readonly address: Address;
  /** "Twist angle", "Displace per axis x". */
  readonly title: string;
  /** Name and colour of the ribbon, or of the scene part. */
  readonly place: string;
  readonly colour?: string;
}

export interface NumberPlace extends ValuePlace {
  readonly param: NumberParam | VectorParam;
  readonly value: NumberValue;
}

export interface ColourPlace extends ValuePlace {
  readonly param: ColourParam;
  readonly value: ColourValue;
}

export function isColourPlace(place: NumberPlace | ColourPlace): place is ColourPlace {
  return place.param.type === 'colour';
}

const AXES = ['x', 'y', 'z'] as const;

/** A text that names an owner. */
export function ownerKey(owner: Owner): string {
  return owner.type === 'step' ? `${owner.ribbon}/${owner.step}` : owner.type === 'finish' ? `${owner.ribbon}/finish` : `scene/${owner.part}`;
}

/** A text that names an address, for keys and links. */
export function addressKey(a: Address): string {
  return `${ownerKey(a.owner)}/${a.param}${a.axis === undefined ? '' : `.${AXES[a.axis]}`}`;
}

/** Values and declarations of every owner in a piece, in the order of the screen. */
export function ownersOf(piece: Piece): { owner: Owner; params: Params; values: Values; title: string; place: string; colour?: string }[] {
  return [
    ...piece.ribbons.flatMap((r) => [
      ...r.steps.map((s) => ({
        owner: { type: 'step', ribbon: r.id, step: s.id } as Owner,
        params: stepKind(s.kind).params,
        values: s.values,
        title: stepKind(s.kind).title,
        place: r.name,
        colour: r.colour,
      })),
      { owner: { type: 'finish', ribbon: r.id } as Owner, params: finishParams as Params, values: r.finish, title: 'Finish', place: r.name, colour: r.colour },
    ]),
    ...(Object.keys(sceneParts) as ScenePart[]).map((part) => ({
      owner: { type: 'scene', part } as Owner,
      params: sceneParts[part].params,
      values: piece.scene[part],
      title: sceneParts[part].title,
      place: 'Scene',
    })),
  ];
}

/** "Twist angle" of "Twist" and "Angle", put together once for each pair. */
const labels = new Map<string, Map<string, string>>();

function labelOf(owner: string, title: string): string {
  let own = labels.get(owner);
  if (!own) labels.set(owner, (own = new Map()));
  let label = own.get(title);
  if (label === undefined) own.set(title, (label = `${owner} ${title.toLowerCase()}`));
  return label;
}

/** Every number and colour of a piece. */
export function valuesOf(piece: Piece): (NumberPlace | ColourPlace)[] {
  const out: (NumberPlace | ColourPlace)[] = [];
  for (const { owner, params, values, title, place, colour } of ownersOf(piece))
    for (const name in params) {
      const param = params[name];
      if (param.type !== 'number' && param.type !== 'vector' && param.type !== 'colour') continue;
      const label = labelOf(title, param.title);
      const stored = values[name] ?? param.default;
      if (param.type === 'number') out.push({ address: { owner, param: name }, param, value: stored as NumberValue, title: label, place, colour });
      else if (param.type === 'colour') out.push({ address: { owner, param: name }, param, value: stored as ColourValue, title: label, place, colour });
      else
        for (const axis of [0, 1, 2] as const)
          out.push({ address: { owner, param: name, axis }, param, value: (stored as readonly NumberValue[])[axis], title: labelOf(label, AXES[axis]), place, colour });
    }
  return out;
}

/** Every number of a piece. */
export function numbersOf(piece: Piece): NumberPlace[] {
  return valuesOf(piece).filter((v): v is NumberPlace => !isColourPlace(v));
}

/** What is stored at an address, the default where nothing is; undefined where there is no such place. */
export function valueAt(piece: Piece, { owner, param, axis }: Address): StoredValue | undefined {
  const found = ownerValues(piece, owner);
  if (!found) return undefined;
  const stored = found.values[param] ?? found.params[param]?.default;
  return axis === undefined ? stored : (stored as readonly NumberValue[] | undefined)?.[axis];
}

function ownerValues(piece: Piece, owner: Owner): { values: Values; params: Params } | undefined {
  if (owner.type === 'scene') return { values: piece.scene[owner.part], params: sceneParts[owner.part].params };
  const ribbon = piece.ribbons.find((r) => r.id === owner.ribbon);
  if (!ribbon) return undefined;
  if (owner.type === 'finish') return { values: ribbon.finish, params: finishParams };
  const step = ribbon.steps.find((s) => s.id === owner.step);
  return step && { values: step.values, params: stepKind(step.kind).params };
}

function withParam(values: Values, address: Pick<Address, 'param' | 'axis'>, value: StoredValue, fallback?: StoredValue): Values {
  if (address.axis === undefined) return { ...values, [address.param]: value };
  const list = [...((values[address.param] ?? fallback) as readonly NumberValue[])];
  list[address.axis] = value as NumberValue;
  return { ...values, [address.param]: list as unknown as StoredValue };
}

/** The piece with one value replaced; everything else is shared with the old piece. */
export function setValue(piece: Piece, address: Address, value: StoredValue): Piece {
  const { owner } = address;
  if (owner.type === 'scene') {
    const fallback = sceneParts[owner.part].params[address.param]?.default;
    return { ...piece, scene: { ...piece.scene, [owner.part]: withParam(piece.scene[owner.part], address, value, fallback) } };
  }
  return {
    ...piece,
    ribbons: piece.ribbons.map((r) => {
      if (r.id !== owner.ribbon) return r;
      if (owner.type === 'finish') return { ...r, finish: withParam(r.finish, address, value) };
      return {
        ...r,
        steps: r.steps.map((s) =>
          s.id === owner.step ? { ...s, values: withParam(s.values, address, value, stepKind(s.kind).params[address.param]?.default) } : s,
        ),
      };
    }),
  };
}
