import { isShown } from '../declare/shown';
import type { Item, Piece } from '../piece/piece';
import { ownersOf, type Owned } from '../piece/walk';
import { valueWords } from '../time/value-words';
import { liken } from './liken';

/** A difference between two pieces, in words. */
export interface Difference {
  /** Where: name of the ribbon, or of the place. */
  readonly place: string;
  /** "Twist angle". */
  readonly what: string;
  readonly from: string;
  readonly to: string;
  /** Its item and value; absent if it has none. */
  readonly item?: string;
  readonly param?: string;
}

/** What differs in `b` from `a`, in the order of the screen. */
export function differences(a: Piece, b: Piece): Difference[] {
  const out: Difference[] = [];
  const whole = (what: string, from: string, to: string) => from !== to && out.push({ place: 'Piece', what, from, to });
  whole('Name', a.name, b.name);
  whole('Loop', `${a.loop.frames} frames at ${a.loop.fps} fps`, `${b.loop.frames} frames at ${b.loop.fps} fps`);
  whole('Format', `${a.format.width} × ${a.format.height}`, `${b.format.width} × ${b.format.height}`);
  for (const r of b.ribbons) if (!a.ribbons.some((o) => o.id === r.id)) out.push(ribbonSaid(r.name, '', 'added'));
  for (const r of a.ribbons) {
    const other = b.ribbons.find((o) => o.id === r.id);
    if (!other) out.push(ribbonSaid(r.name, '', 'removed'));
    else {
      if (other.name !== r.name) out.push({ place: r.name, what: 'Name', from: r.name, to: other.name });
      if (other.on !== r.on) out.push({ place: r.name, what: 'Ribbon', from: onOff(r.on), to: onOff(other.on) });
      if (moved(r.steps, other.steps)) out.push({ place: r.name, what: 'Steps', from: '', to: 'in another order' });
    }
  }
  const [before, after] = [a, b].map((p) => new Map(ownersOf(p).map((o) => [o.item.id, o])));
  for (const [id, owned] of after) {
    const old = before.get(id);
    if (!old) {
      if (!owned.ribbon || a.ribbons.some((r) => r.id === owned.ribbon!.id)) out.push(itemSaid(owned, 'added'));
    } else out.push(...ofItem(old, owned));
  }
  for (const [id, owned] of before)
    if (!after.has(id) && (!owned.ribbon || b.ribbons.some((r) => r.id === owned.ribbon!.id)))
      out.push(itemSaid(owned, 'removed'));
  return out;
}

/** The same for unrelated pieces: if they share no ribbon, similar things are matched. */
export function comparePieces(a: Piece, b: Piece): Difference[] {
  const related = a.ribbons.some((r) => b.ribbons.some((o) => o.id === r.id));
  return differences(a, related ? b : liken(a, b));
}

const onOff = (on: boolean) => (on ? 'on' : 'off');
const ribbonSaid = (place: string, from: string, to: string): Difference => ({
  place,
  what: `Ribbon ${place}`,
  from,
  to,
});
const itemSaid = ({ place, title, item }: Owned, to: string): Difference => ({
  place,
  what: title,
  from: '',
  to,
  item: item.id,
});

function moved(a: readonly Item[], b: readonly Item[]): boolean {
  const [x, y] = [a, b].map((list) => list.map((s) => s.id));
  const both = [x.filter((id) => y.includes(id)), y.filter((id) => x.includes(id))];
  return both[0].join() !== both[1].join();
}

function ofItem(a: Owned, b: Owned): Difference[] {
  const { place, item } = b;
  const said = (what: string, from: string, to: string): Difference => ({ place, what, from, to, item: item.id });
  if (a.item === b.item) return [];
  if (a.item.kind !== b.item.kind) return [said('Kind', a.title, b.title)];
  const out: Difference[] = [];
  if (a.item.on !== b.item.on) out.push(said(b.title, onOff(a.item.on), onOff(b.item.on)));
  for (const [name, param] of Object.entries(b.params)) {
    const [from, to] = [a, b].map((o) => o.item.values[name] ?? param.default);
    if (from === to || JSON.stringify(from) === JSON.stringify(to)) continue;
    if (!isShown(b.params, b.item.values, name)) continue;
    const [was, is] = [valueWords(from, param), valueWords(to, param)];
    out.push({ ...said(`${b.title} ${param.title.toLowerCase()}`, was, was === is ? 'otherwise' : is), param: name });
  }
  return out;
}
