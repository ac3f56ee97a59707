import { addressKey, setValue, valueAt, type Address } from './addresses';
import { copyRibbon } from './copy';
import type { Piece, RibbonDoc } from './piece';
import { RIBBON_COLOURS } from './piece';
import type { StoredValue } from '../declare/params';

/**
 * A second ribbon for a pair: a copy that goes along with the first. A value of it that is the same as
 * the first one's changes when that changes; once it has been changed by itself it is left alone.
 */
export function pairRibbon(ribbon: RibbonDoc, name: string): RibbonDoc {
  const copy = copyRibbon(ribbon, name);
  const colour = RIBBON_COLOURS[(RIBBON_COLOURS.indexOf(ribbon.colour as never) + 1) % RIBBON_COLOURS.length];
  return { ...copy, colour, finish: { ...copy.finish, colour }, twin: ribbon.id, steps: copy.steps.map((s, i) => ({ ...s, twin: ribbon.steps[i].id })) };
}

/** The places that go along with one: the same value of ribbons paired with its own, theirs in turn, as long as they are equal. */
export function twinsOf(piece: Piece, address: Address): Address[] {
  const out: Address[] = [];
  const seen = new Set([addressKey(address)]);
  const visit = (from: Address) => {
    const { owner } = from;
    if (owner.type === 'scene') return;
    const value = JSON.stringify(valueAt(piece, from));
    for (const r of piece.ribbons) {
      const owners: Address['owner'][] =
        owner.type === 'finish' ? (r.twin === owner.ribbon ? [{ type: 'finish', ribbon: r.id }] : []) : r.steps.filter((s) => s.twin === owner.step).map((s) => ({ type: 'step', ribbon: r.id, step: s.id }));
      for (const o of owners) {
        const to = { ...from, owner: o };
        if (seen.has(addressKey(to)) || JSON.stringify(valueAt(piece, to)) !== value) continue;
        seen.add(addressKey(to));
        out.push(to);
        visit(to);
      }
    }
  };
  visit(address);
  return out;
}

/** Sets a value, and with it those that go along. */
export function setPairedValue(piece: Piece, address: Address, value: StoredValue): Piece {
  return [address, ...twinsOf(piece, address)].reduce((p, a) => setValue(p, a, value), piece);
}
