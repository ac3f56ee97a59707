import MiniSearch from 'minisearch';
import { stemmer } from 'stemmer';

/** Something that can be found by what it does. */
export interface Findable {
  readonly title: string;
  /**
   * Words of the trade that should find it. What stands between commas is a phrase: asked for word by word, it counts as
   * much as the title.
   */
  readonly also?: string;
  /** Names of its values and of what can be chosen for them. */
  readonly holds?: string;
  /** A sentence about what it does. */
  readonly help?: string;
}

/** Stop words. */
const EMPTY = new Set(
  (
    'a an the to of in on at by it is be my i me we do does how can want make get use with for from and or ' +
    'some one this that so all into up out like where what which be more than them they there its show every'
  ).split(' '),
);

/** Factors for a query that is a title, begins a title or is a phrase of the trade. */
const [NAMED, PHRASE, BEGINS] = [12, 3, 1.5];

const FIELDS = ['title', 'also', 'holds', 'help'] as const;

const wordsOf = (text: string): string[] =>
  text
    .toLowerCase()
    .normalize('NFKD')
    .split(/[^a-z0-9]+/)
    .filter(Boolean);

const stems = new Map<string, string>();
/** Most texts whose stems are kept: all titles and phrases of the trade, and what is typed beside them. */
const MOST_STEMS = 20_000;

/** Words as one text, each in its stem (M. F. Porter, An algorithm for suffix stripping, 1980). */
export function stemsOf(text: string): string {
  let found = stems.get(text);
  if (found === undefined) {
    found = wordsOf(text).map(stemmer).join(' ');
    if (stems.size >= MOST_STEMS) stems.clear();
    stems.set(text, found);
  }
  return found;
}

/**
 * Finds by titles, words of the trade, values and help: BM25+ over stems, with prefixes and one wrong letter in five
 * (MiniSearch). Build it once per list.
 */
export class Search<T extends Findable> {
  private readonly index: MiniSearch<Findable & { readonly id: number }>;
  private readonly titles: readonly string[];
  private readonly phrases: readonly ReadonlySet<string>[];

  constructor(private readonly list: readonly T[]) {
    this.index = new MiniSearch({
      fields: [...FIELDS],
      tokenize: wordsOf,
      processTerm: stemmer,
      searchOptions: {
        boost: { title: 10, also: 7, holds: 3, help: 1.5 },
        prefix: (term) => term.length > 1,
        fuzzy: (term) => (term.length > 4 ? 0.2 : false),
        weights: { fuzzy: 0.2, prefix: 0.5 },
      },
    });
    this.index.addAll(list.map(({ title, also, holds, help }, id) => ({ id, title, also, holds, help })));
    this.titles = list.map((item) => stemsOf(item.title));
    this.phrases = list.map((item) => new Set((item.also ?? '').split(',').map(stemsOf)));
  }

  /**
   * Matches of a query, best first.
   *
   * @param query as typed; an empty one returns everything in order
   */
  find(query: string): T[] {
    const all = wordsOf(query);
    if (all.length === 0) return [...this.list];
    const asked = all.filter((w) => !EMPTY.has(w));
    const whole = stemsOf(query);
    const meant = stemsOf(asked.join(' '));
    const text = (asked.length > 0 ? asked : all).join(' ');
    const near = this.index.search(text);
    // Two letters that changed places are two wrong ones.
    return (near.length > 0 ? near : this.index.search(text, { fuzzy: (term) => term.length > 3 && 0.4 }))
      .map(({ id, score }) => ({ item: this.list[id], id: id as number, score: score * this.factor(id, whole, meant) }))
      .sort((a, b) => b.score - a.score || a.id - b.id)
      .map(({ item }) => item);
  }

  private factor(id: number, whole: string, meant: string): number {
    const title = this.titles[id];
    if (title === whole) return NAMED;
    if (title === meant || this.phrases[id].has(whole) || this.phrases[id].has(meant)) return PHRASE;
    return title.startsWith(whole) ? BEGINS : 1;
  }
}
