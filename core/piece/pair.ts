import type { StoredValue } from '../declare/params';
import { addressKey, setValue, valueAt, type Address, type Owner } from './addresses';
import type { PatternDoc } from './piece';
import { copyRibbon } from './copy';
import { RIBBON_COLOURS, type Item, type Piece, type RibbonDoc } from './piece';
import { mapOwners, mapRibbon, ownedAt } from './walk';

/**
 * Makes a linked copy of a ribbon. Equal values change together; a value changed on one side alone becomes an override.
 */
export function pairRibbon(ribbon: RibbonDoc, name: string): RibbonDoc {
  const copy = copyRibbon(ribbon, name);
  const colour =
    RIBBON_COLOURS[((RIBBON_COLOURS as readonly string[]).indexOf(ribbon.colour) + 1) % RIBBON_COLOURS.length];
  const coloured = mapRibbon(copy, ({ item, finish }) =>
    finish?.of === 'main' && 'colour' in item.values ? { ...item, values: { ...item.values, colour } } : item,
  );
  return {
    ...coloured,
    colour,
    twin: ribbon.id,
    steps: coloured.steps.map((s, i) => ({ ...s, twin: ribbon.steps[i].id })),
  };
}

/** Owners in linked ribbons that correspond to an owner. */
function ownersBeside(piece: Piece, owner: Owner): Owner[] {
  if (!('ribbon' in owner)) return [];
  const own = piece.ribbons.find((r) => r.id === owner.ribbon);
  if (!own) return [];
  if (owner.type === 'step') {
    const step = own.steps.find((s) => s.id === owner.item);
    return piece.ribbons.flatMap((r) =>
      r.steps
        .filter((s) => s.id !== owner.item && (s.twin === owner.item || s.id === step?.twin))
        .map((s): Owner => ({ type: 'step', ribbon: r.id, item: s.id })),
    );
  }
  const found = ownedAt(piece, owner);
  if (!found?.finish) return [];
  const { finish, part, item } = found;
  return piece.ribbons
    .filter((r) => r.id !== own.id && (r.twin === own.id || r.id === own.twin))
    .flatMap((r) => r.finishes.filter((f) => f.of === finish.of).flatMap((f) => f.parts.map((p) => ({ r, p }))))
    .flatMap(({ r, p }): Owner[] => {
      if (p.kind !== (part ?? item).kind) return [];
      if (!part) return [{ type: 'part', ribbon: r.id, item: p.id }];
      // A layer corresponds to the one at the same position and of the same kind.
      const twin = p.patterns?.[part.patterns!.findIndex((x) => x.id === item.id)];
      return twin && twin.kind === item.kind && twin.of === (item as PatternDoc).of
        ? [{ type: 'pattern', ribbon: r.id, item: twin.id }]
        : [];
    });
}

/** The same value in all linked ribbons, transitively, whether equal or not. */
export function counterparts(piece: Piece, address: Address): Address[] {
  const out: Address[] = [];
  const seen = new Set([addressKey(address)]);
  const visit = (from: Address) => {
    for (const owner of ownersBeside(piece, from.owner)) {
      const to = { ...from, owner };
      if (seen.has(addressKey(to))) continue;
      seen.add(addressKey(to));
      out.push(to);
      visit(to);
    }
  };
  visit(address);
  return out;
}

/** A value is an override if either side says so. */
function isApart(piece: Piece, a: Address, b: Address): boolean {
  return [a, b].some(({ owner, param }) => ownedAt(piece, owner)?.item.apart?.includes(param));
}

/** The addresses that change with one: the same value of linked ribbons, while equal and not overridden. */
export function twinsOf(piece: Piece, address: Address): Address[] {
  const value = JSON.stringify(valueAt(piece, address));
  return counterparts(piece, address).filter(
    (to) => !isApart(piece, address, to) && JSON.stringify(valueAt(piece, to)) === value,
  );
}

/** Whether a value is linked, could be, or has no counterpart. */
export function pairingOf(piece: Piece, address: Address): 'linked' | 'apart' | 'none' {
  const all = counterparts(piece, address);
  return all.length === 0 ? 'none' : twinsOf(piece, address).length > 0 ? 'linked' : 'apart';
}

/** Makes a value an override. */
export function partValue(piece: Piece, { owner, param }: Address): Piece {
  return mapOwners(piece, (o) =>
    o.item.id === owner.item && !o.item.apart?.includes(param)
      ? { ...o.item, apart: [...(o.item.apart ?? []), param] }
      : o.item,
  );
}

/** Copies a value to the linked ribbons, and links it again. */
export function joinValue(piece: Piece, address: Address): Piece {
  const all = [address, ...counterparts(piece, address)];
  const ids = new Set(all.map((a) => a.owner.item));
  const free = mapOwners(piece, ({ item }) =>
    ids.has(item.id) && item.apart?.includes(address.param) ? withoutApart(item, address.param) : item,
  );
  const value = valueAt(free, { ...address, axis: undefined })!;
  return all.slice(1).reduce((p, a) => setValue(p, { ...a, axis: undefined }, value), free);
}

function withoutApart({ apart, ...item }: Item, param: string): Item {
  const left = apart!.filter((x) => x !== param);
  return left.length > 0 ? { ...item, apart: left } : item;
}

/** Sets a value and those linked to it. */
export function setPairedValue(piece: Piece, address: Address, value: StoredValue): Piece {
  return [address, ...twinsOf(piece, address)].reduce((p, a) => setValue(p, a, value), piece);
}
