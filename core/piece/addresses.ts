import { vec3 } from '../maths/vec3';
import type {
  ColourParam,
  ColourValue,
  NumberParam,
  NumberValue,
  Params,
  StoredValue,
  VectorParam,
} from '../declare/params';
import type { Piece, Values } from './piece';
import { ownedAt, ownersOf, withValues, type Owner } from './walk';

export { ownersOf, type Owner } from './walk';

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
  /** Item and value: "Twist", "Angle". */
  readonly of: string;
  readonly name: string;
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

/** Key of an owner: the ribbon, or its other place, and its identifier. */
export function ownerKey(owner: Owner): string {
  return `${'ribbon' in owner ? owner.ribbon : owner.type}/${owner.item}`;
}

/** Key of an address, for lookups and links. */
export function addressKey(a: Address): string {
  return `${ownerKey(a.owner)}/${a.param}${a.axis === undefined ? '' : `.${AXES[a.axis]}`}`;
}

/** "Twist angle" from "Twist" and "Angle", built once per pair. */
const labels = new Map<string, Map<string, string>>();

function labelOf(owner: string, title: string): string {
  let own = labels.get(owner);
  if (!own) labels.set(owner, (own = new Map()));
  let label = own.get(title);
  if (label === undefined) own.set(title, (label = `${owner} ${title.toLowerCase()}`));
  return label;
}

/** Every number and colour of a set of values. */
function placesIn(
  owner: Owner,
  params: Params,
  values: Values,
  about: { title: string; place: string; colour?: string },
  out: (NumberPlace | ColourPlace)[],
): void {
  const { place, colour, title: of } = about;
  for (const name in params) {
    const param = params[name];
    if (param.type !== 'number' && param.type !== 'vector' && param.type !== 'colour') continue;
    const label = labelOf(of, param.title);
    const words = { title: label, of, name: param.title, place, colour };
    const stored = values[name] ?? param.default;
    if (param.type === 'number')
      out.push({ address: { owner, param: name }, param, value: stored as NumberValue, ...words });
    else if (param.type === 'colour')
      out.push({ address: { owner, param: name }, param, value: stored as ColourValue, ...words });
    else
      for (const axis of [0, 1, 2] as const)
        out.push({
          address: { owner, param: name, axis },
          param,
          value: (stored as readonly NumberValue[])[axis],
          ...words,
          title: labelOf(label, AXES[axis]),
          name: labelOf(param.title, AXES[axis]),
        });
  }
}

/** Every number and colour of a piece. */
export function valuesOf(piece: Piece): (NumberPlace | ColourPlace)[] {
  const out: (NumberPlace | ColourPlace)[] = [];
  for (const { owner, params, item, title, place, ribbon } of ownersOf(piece))
    placesIn(owner, params, item.values, { title, place, colour: ribbon?.colour }, out);
  return out;
}

/** Every number of a piece. */
export function numbersOf(piece: Piece): NumberPlace[] {
  return valuesOf(piece).filter((v): v is NumberPlace => !isColourPlace(v));
}

/** The stored value at an address, the default if there is none; undefined if the address does not exist. */
export function valueAt(piece: Piece, { owner, param, axis }: Address): StoredValue | undefined {
  const found = ownedAt(piece, owner);
  if (!found) return undefined;
  const stored = found.item.values[param] ?? found.params[param]?.default;
  return axis === undefined ? stored : (stored as readonly NumberValue[] | undefined)?.[axis];
}

/** The piece with one value replaced; everything else is shared. */
export function setValue(piece: Piece, address: Address, value: StoredValue): Piece {
  return withValues(piece, address.owner, ({ item, params }) => {
    const { values } = item;
    if (address.axis === undefined) return { ...values, [address.param]: value };
    const before = (values[address.param] ?? params[address.param]?.default) as readonly NumberValue[];
    return {
      ...values,
      [address.param]: vec3((axis) => (axis === address.axis ? (value as NumberValue) : before[axis])),
    };
  });
}
