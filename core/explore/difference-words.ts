import { isShown } from '../declare/shown';
import type { StoredValue } from '../declare/params';
import { FACE_WORDS, type FaceKind } from '../finish/surface';
import { isRecord, ORDER, same, type Change, type Path } from '../piece/paths';
import type { Piece } from '../piece/piece';
import { ownersOf, type Owned } from '../piece/walk';
import { sceneLists, type SceneList } from '../scene/index';
import { valueWords } from '../time/value-words';

/** A difference between two pieces, in words. */
export interface Difference {
  /** Where: name of the ribbon, or of the place. */
  readonly place: string;
  /** "Twist angle". */
  readonly what: string;
  /** Empty where there is nothing to say of it. */
  readonly from: string;
  readonly to: string;
  /** Its item and value; absent if it has none. */
  readonly item?: string;
  readonly param?: string;
  /** Where it stands in the document; see `broughtBack`. */
  readonly path: Path;
}

/** What a piece has, by identifier. */
export interface Book {
  readonly owners: ReadonlyMap<string, Owned>;
  /** Names of ribbons. */
  readonly ribbons: ReadonlyMap<string, string>;
}

export const bookOf = (p: Piece): Book => ({
  owners: new Map(ownersOf(p).map((o) => [o.item.id, o])),
  ribbons: new Map(p.ribbons.map((r) => [r.id, r.name])),
});

/** Said where neither a number nor a word tells it. */
const OTHERWISE = 'otherwise';
const onOff = (on: unknown) => (on === false ? 'off' : 'on');
const presence = ({ from, to }: Change) => (from === undefined ? 'added' : to === undefined ? 'removed' : OTHERWISE);

/** A change as the screen words it; null for what has no effect in `b`. */
export function changeWords(change: Change, a: Book, b: Book): Difference | null {
  const { path, from, to } = change;
  // A layer of a pattern is named by itself, its part where only the list of layers changed.
  const id = path.findLast((key): key is string => typeof key === 'string' && (a.owners.has(key) || b.owners.has(key)));
  if (id !== undefined) return itemWords(change, id, a, b);
  const said = (place: string, what: string, was = '', is = presence(change)) => ({
    place,
    what,
    from: was,
    to: is,
    path,
  });
  const [first, second] = path;
  if (first === 'name') return said('Piece', 'Name', String(from), String(to));
  if (first === 'loop' && isRecord(from) && isRecord(to))
    return said('Piece', 'Loop', `${from.frames} frames at ${from.fps} fps`, `${to.frames} frames at ${to.fps} fps`);
  if (first === 'format' && isRecord(from) && isRecord(to))
    return said('Piece', 'Format', `${from.width} × ${from.height}`, `${to.width} × ${to.height}`);
  if (first === 'ribbons') return ribbonWords(change, a, b);
  const place = first === 'outputs' || first === 'render' ? 'Deliver' : 'Scene';
  if (path.at(-1) === ORDER) return said(place, 'Order', '', 'another');
  if (first !== 'scene') return said(place, 'Settings');
  const { title, kinds } = sceneLists[second as SceneList];
  const [was, is] = [from, to].map((list) => (Array.isArray(list) && isRecord(list[0]) ? list[0] : null));
  // Another identifier alone is nothing that anybody sees.
  if (was && is && was.kind === is.kind && same(was.values, is.values)) return null;
  const [old, now] = [was, is].map((item) => (item ? kinds.get(String(item.kind)).title : 'removed'));
  return said(place, title, old, old === now ? OTHERWISE : now);
}

function ribbonWords(change: Change, a: Book, b: Book): Difference {
  const { path, from, to } = change;
  const [, ribbon, field, face] = path;
  const name = b.ribbons.get(String(ribbon)) ?? a.ribbons.get(String(ribbon)) ?? '';
  const said = (what: string, was = '', is = presence(change)) => ({ place: name, what, from: was, to: is, path });
  if (ribbon === ORDER) return { ...said('Ribbons', '', 'in another order'), place: 'Piece' };
  if (field === undefined) return said(`Ribbon ${name}`);
  if (field === 'name') return said('Name', String(from), String(to));
  if (field === 'on') return said('Ribbon', onOff(from), onOff(to));
  if (field === 'colour') return said('Colour of the band', String(from), String(to));
  if (field === 'steps') return said('Steps', '', 'in another order');
  if (field === 'finishes' && typeof face === 'string' && face in FACE_WORDS) {
    const { title } = FACE_WORDS[face as FaceKind];
    if (path.at(-1) === 'on') return said(title, onOff(from), onOff(to));
    return said(title, '', path.at(-1) === ORDER ? 'in another order' : presence(change));
  }
  return said(field === 'twin' ? 'Pair' : 'Finishes', '', OTHERWISE);
}

const ITEM_FIELDS: Readonly<Record<string, string>> = {
  copies: 'on copies',
  chance: 'throw',
  twin: 'pair',
  apart: 'apart from its pair',
  patterns: 'patterns',
  of: 'pattern',
};

function itemWords(change: Change, own: string, a: Book, b: Book): Difference | null {
  const { path, from, to } = change;
  const [old, now] = [a.owners.get(own), b.owners.get(own)];
  const { title, place, params } = (now ?? old)!;
  const said = (what: string, was: string, is: string) => ({ place, what, from: was, to: is, path, item: own });
  const [field, param] = path.slice(path.indexOf(own) + 1);
  if (field === undefined) return old && now ? said('Kind', old.title, now.title) : said(title, '', presence(change));
  if (field === 'on') return said(title, onOff(from), onOff(to));
  if (field !== 'values') return said(`${title} ${ITEM_FIELDS[String(field)] ?? ''}`.trim(), '', OTHERWISE);
  const declared = params[String(param)];
  if (!declared || !now || !isShown(params, now.item.values, String(param))) return null;
  const [before, after] = [from ?? declared.default, to ?? declared.default] as [StoredValue, StoredValue];
  if (same(before, after)) return null;
  const was = valueWords(before, declared, a.ribbons);
  const is = valueWords(after, declared, b.ribbons);
  return {
    ...said(`${title} ${declared.title.toLowerCase()}`, was, was === is ? OTHERWISE : is),
    param: String(param),
  };
}
