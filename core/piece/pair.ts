import type { StoredValue } from '../declare/params';
import { addressKey, setValue, valueAt, type Address, type Owner } from './addresses';
import type { PatternDoc } from './piece';
import { copyRibbon } from './copy';
import { RIBBON_COLOURS, type Item, type Piece, type RibbonDoc } from './piece';
import { mapOwners, mapRibbon, ownedAt } from './walk';

/**
 * A second ribbon for a pair: a copy that goes along with the first, and the first with it. A value
 * that is the same on both changes on both; once one of them has been changed by itself they are
 * apart in it.
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

/** What stands in the place of an owner in the ribbons that are paired with its own, either way. */
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
      // A layer goes along with the one that lies in the same place and is of the same kind.
      const twin = p.patterns?.[part.patterns!.findIndex((x) => x.id === item.id)];
      return twin && twin.kind === item.kind && twin.of === (item as PatternDoc).of
        ? [{ type: 'pattern', ribbon: r.id, item: twin.id }]
        : [];
    });
}

/** The same value in all ribbons that are paired with its own, theirs in turn, whether it is equal there or not. */
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

/** A value is parted where either side says so. */
function isApart(piece: Piece, a: Address, b: Address): boolean {
  return [a, b].some(({ owner, param }) => ownedAt(piece, owner)?.item.apart?.includes(param));
}

/** The places that go along with one: the same value of paired ribbons, as long as they are equal and nobody has parted them. */
export function twinsOf(piece: Piece, address: Address): Address[] {
  const value = JSON.stringify(valueAt(piece, address));
  return counterparts(piece, address).filter(
    (to) => !isApart(piece, address, to) && JSON.stringify(valueAt(piece, to)) === value,
  );
}

/** Whether a value goes along with that of a paired ribbon, could, or has none to go along with. */
export function pairingOf(piece: Piece, address: Address): 'linked' | 'apart' | 'none' {
  const all = counterparts(piece, address);
  return all.length === 0 ? 'none' : twinsOf(piece, address).length > 0 ? 'linked' : 'apart';
}

/** Lets a value go its own way from now on. */
export function partValue(piece: Piece, { owner, param }: Address): Piece {
  return mapOwners(piece, (o) =>
    o.item.id === owner.item && !o.item.apart?.includes(param)
      ? { ...o.item, apart: [...(o.item.apart ?? []), param] }
      : o.item,
  );
}

/** Makes the same value of paired ribbons what this one is, and lets them go along again. */
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

/** Sets a value, and with it those that go along. */
export function setPairedValue(piece: Piece, address: Address, value: StoredValue): Piece {
  return [address, ...twinsOf(piece, address)].reduce((p, a) => setValue(p, a, value), piece);
}
