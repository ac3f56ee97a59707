import type { Params } from '../declare/params';
import { isShown } from '../declare/shown';
import { TRADE_WORDS } from '../find/trade-words';
import { finishParts } from '../finish/parts/index';
import type { Piece } from '../piece/piece';
import { ownersOf, type Owned } from '../piece/walk';
import { sceneListNames, sceneLists, type SceneList } from '../scene/index';
import { stepKinds } from '../steps/index';
import { stemsOf } from '../find/search';
import { identifierWords } from './fill';

/** What a part of a line is about. */
export type Subject =
  | {
      readonly type: 'step';
      readonly kind: string;
      readonly title: string;
      readonly params: Params;
      /** The value that is meant, if the phrase names one. */
      readonly param?: string;
    }
  | { readonly type: 'part'; readonly kind: string; readonly title: string; readonly params: Params }
  | {
      readonly type: 'scene';
      readonly list: SceneList;
      readonly kind: string;
      readonly title: string;
      readonly params: Params;
    }
  /** A value of something that is there. */
  | { readonly type: 'value'; readonly owned: Owned; readonly param: string; readonly title: string }
  | { readonly type: 'loop'; readonly title: string };

/**
 * How sure a phrase names its subject: by its title, as a value of the chosen ribbon, as one that a new Place gives it,
 * as any other value, by a phrase or by a word of the trade.
 */
export const SURE = { title: 6, own: 5, place: 4, value: 3, phrase: 2, word: 1 } as const;

export interface Named {
  readonly subject: Subject;
  readonly sure: number;
}

/** How much less a phrase is worth that is alike in its stems only: "turn" is not "turned". */
const ALIKE = 1.5;

interface Phrase extends Named {
  readonly phrase: string;
}

type Vocabulary = Map<string, Phrase[]>;

function put(into: Vocabulary, phrase: string, named: Named): void {
  const stems = stemsOf(phrase);
  if (stems === '') return;
  const known = into.get(stems);
  const whole = { ...named, phrase: phrase.trim().toLowerCase() };
  if (known) known.push(whole);
  else into.set(stems, [whole]);
}

function putKind(into: Vocabulary, id: string, subject: Subject): void {
  put(into, subject.title, { subject, sure: SURE.title });
  // "Geodesic" is enough of "Geodesic sphere".
  const [first, ...more] = subject.title.split(' ');
  if (more.length > 0 && first.length > 3) put(into, first, { subject, sure: SURE.word });
  const [words, ...phrases] = (TRADE_WORDS[id] ?? '').split(',');
  for (const phrase of phrases) put(into, phrase, { subject, sure: SURE.phrase });
  // Two letters, as in “no background”, name nothing by themselves.
  for (const word of words.split(' ')) if (word.length > 2) put(into, word, { subject, sure: SURE.word });
}

/** Everything declared, by its titles and the words of the trade. */
const declared: Vocabulary = new Map();
for (const { kind, title, params } of stepKinds)
  putKind(declared, `step:${kind}`, { type: 'step', kind, title, params });
for (const list of sceneListNames.filter((l) => l !== 'cameras'))
  for (const { kind, title, params } of sceneLists[list].kinds.all)
    putKind(declared, `${list}:${kind}`, { type: 'scene', list, kind, title, params });
for (const { kind, title, params } of finishParts.all)
  putKind(declared, `part:${kind}`, { type: 'part', kind, title, params });
const place = stepKinds.find((k) => k.kind === 'place')!;
for (const [name, { title }] of Object.entries(place.params))
  put(declared, title, {
    subject: { type: 'step', kind: 'place', title: place.title, params: place.params, param: name },
    sure: SURE.place,
  });
for (const phrase of ['loop', 'duration', 'loop length', 'frame rate', 'fps'])
  put(declared, phrase, { subject: { type: 'loop', title: 'Loop' }, sure: SURE.place });

/** What a phrase may name of one thing that is there. */
interface Naming {
  readonly param: string;
  readonly phrase: string;
  readonly sure: 'own' | 'value' | 'phrase';
}

/** The phrases of each thing; a thing that changes is another object. */
const namings = new WeakMap<object, { readonly title: string; readonly byStems: ReadonlyMap<string, Naming[]> }>();

/** The names of an item's values by their stems, with the item's title and without. */
function namingsOf({ title, item, params }: Owned): ReadonlyMap<string, Naming[]> {
  const known = namings.get(item);
  if (known?.title === title) return known.byStems;
  const byStems = new Map<string, Naming[]>();
  const put = (phrase: string, param: string, sure: Naming['sure']) => {
    const stems = stemsOf(phrase);
    if (stems === '') return;
    const whole: Naming = { param, phrase: phrase.trim().toLowerCase(), sure };
    const others = byStems.get(stems);
    if (others) others.push(whole);
    else byStems.set(stems, [whole]);
  };
  for (const [name, param] of Object.entries(params)) {
    put(valueTitle(title, param.title), name, 'own');
    // What does not count now has to be called by its whole name.
    if (!isShown(params, item.values, name)) continue;
    put(param.title, name, 'value');
    // "Radius" means "Ring radius" where nothing is called that alone.
    const last = param.title.split(' ').at(-1)!;
    if (last !== param.title) put(last, name, 'phrase');
    put(identifierWords(name), name, 'phrase');
    for (const phrase of (TRADE_WORDS[`value:${item.kind}.${name}`] ?? '').split(',')) put(phrase, name, 'phrase');
  }
  namings.set(item, { title, byStems });
  return byStems;
}

const valueTitle = (owner: string, param: string) => `${owner} ${param.toLowerCase()}`;

/** Things of a piece whose values may be named: those of the chosen ribbon first, its used step before all. */
function ownersNear(piece: Piece, ribbonId: string | null, held: string | null): readonly Owned[] {
  const near = ({ owner }: Owned) =>
    owner.item === held ? 0 : 'ribbon' in owner ? (owner.ribbon === ribbonId ? 1 : 9) : owner.type === 'scene' ? 2 : 3;
  return ownersOf(piece)
    .filter((o) => o.owner.type !== 'output' && near(o) < 9)
    .sort((a, b) => near(a) - near(b));
}

/** The values that a phrase may name. */
function* valuesCalled(stems: string, owners: readonly Owned[]): Generator<Phrase> {
  for (const owned of owners)
    for (const { param, phrase, sure } of namingsOf(owned).get(stems) ?? []) {
      const title = valueTitle(owned.title, owned.params[param].title);
      const level = sure === 'value' && 'ribbon' in owned.owner ? 'own' : sure;
      yield { subject: { type: 'value', owned, param, title }, phrase, sure: SURE[level] };
    }
}

/** The camera that is used, by "camera". */
function* cameraCalled(stems: string, { scene: { cameras } }: Piece): Generator<Phrase> {
  if (stems !== stemsOf('camera')) return;
  const { kind, title, params } = sceneLists.cameras.kinds.get((cameras.find((c) => c.on) ?? cameras[0]).kind);
  yield { subject: { type: 'scene', list: 'cameras', kind, title, params }, phrase: 'camera', sure: SURE.title };
}

/** What a phrase may mean in a piece, surest first; the order of declaration decides between equals. */
export function vocabularyFor(
  piece: Piece,
  ribbonId: string | null,
  held: string | null,
): (phrase: string) => readonly Named[] {
  const owners = ownersNear(piece, ribbonId, held);
  return (phrase) => {
    const stems = stemsOf(phrase);
    if (stems === '') return [];
    const said = phrase.toLowerCase();
    return [...cameraCalled(stems, piece), ...valuesCalled(stems, owners), ...(declared.get(stems) ?? [])]
      .map((n): Named => ({ subject: n.subject, sure: n.phrase === said ? n.sure : n.sure - ALIKE }))
      .sort((a, b) => b.sure - a.sure);
  };
}

/** All titles, for guesses at what is not understood. */
export const titles: readonly string[] = [
  ...stepKinds.map((k) => k.title),
  ...sceneListNames.flatMap((list) => sceneLists[list].kinds.all.map((k) => k.title)),
  ...finishParts.all.map((p) => p.title),
];
