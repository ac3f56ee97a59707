/** Something that can be found by what it does. */
export interface Findable {
  readonly title: string;
  /** Words of the trade that should find it. */
  readonly also?: string;
  /** A sentence about what it does. */
  readonly help?: string;
}

/** Stop words. */
const EMPTY = new Set(
  (
    'a an the to of in on at by it is be my i me we do does how can want make get use with for from and or ' +
    'some one this that so all into up out like where what which be more than them they there its'
  ).split(' '),
);

/**
 * Matches of a query, best first. A word scores by where it matches (title, words of the trade, help), by how exactly,
 * and by how rare it is (inverse document frequency: K. Spärck Jones, 1972). Words of five letters or more may have one
 * letter wrong.
 *
 * @param query as typed; an empty one returns everything in order
 */
export function ranked<T extends Findable>(query: string, list: readonly T[]): T[] {
  const all = wordsOf(query);
  const asked = all.filter((w) => !EMPTY.has(w));
  const tokens = asked.length > 0 ? asked : all;
  if (tokens.length === 0) return [...list];
  const rows = list.map((item) => ({ item, ...partsOf(item) }));
  const sums = rows.map(() => ({ sum: 0, met: 0 }));
  for (const token of tokens) {
    const fits = rows.map((r) => fit(token, r));
    const rare = Math.log(1 + rows.length / (1 + fits.filter((f) => f > 0).length));
    fits.forEach((f, i) => {
      sums[i].sum += f * rare;
      if (f > 0) sums[i].met++;
    });
  }
  const whole = all.join(' ');
  return rows
    .map(({ item, title }, i) => {
      const { sum, met } = sums[i];
      const named = title.join(' ');
      const same = named === whole ? 3 : named.startsWith(whole) ? 1.5 : 1;
      return { item, i, score: sum * same * (met / tokens.length) };
    })
    .filter((r) => r.score > 0)
    .sort((a, b) => b.score - a.score || a.i - b.i)
    .map((r) => r.item);
}

interface Parts {
  readonly title: readonly string[];
  readonly also: readonly string[];
  readonly help: readonly string[];
}

const known = new WeakMap<Findable, Parts>();

function partsOf(item: Findable): Parts {
  let parts = known.get(item);
  if (!parts)
    known.set(
      item,
      (parts = { title: wordsOf(item.title), also: wordsOf(item.also ?? ''), help: wordsOf(item.help ?? '') }),
    );
  return parts;
}

const wordsOf = (text: string) =>
  text
    .toLowerCase()
    .normalize('NFKD')
    .split(/[^a-z0-9]+/)
    .filter(Boolean)
    .map(stem);

/** A word without verb and plural endings: "copies" and "copy", "twisting" and "twist". */
function stem(word: string): string {
  if (word.length < 4) return word;
  if (word.endsWith('ies')) return `${word.slice(0, -3)}y`;
  const cut = word.replace(/(ing|ed|es|s)$/, '');
  return cut.length < 3 ? word : cut.replace(/(.)\1$/, '$1').replace(/e$/, '');
}

function fit(token: string, { title, also, help }: Parts): number {
  return Math.max(best(token, title, 10), best(token, also, 8), best(token, help, 3));
}

function best(token: string, words: readonly string[], worth: number): number {
  let most = 0;
  for (const word of words) {
    if (word === token) return worth;
    if (token.length > 1 && word.startsWith(token)) most = Math.max(most, 0.7 * worth);
    else if (token.length > 4 && word.length > 4 && Math.abs(word.length - token.length) < 2 && nearly(token, word))
      most = Math.max(most, 0.4 * worth);
  }
  return most;
}

/** Whether one insertion, deletion, substitution or transposition turns one word into the other. */
function nearly(a: string, b: string): boolean {
  let i = 0;
  while (i < a.length && a[i] === b[i]) i++;
  const rest = (s: string, from: number) => s.slice(from);
  if (rest(a, i + 1) === rest(b, i + 1) || rest(a, i + 1) === rest(b, i) || rest(a, i) === rest(b, i + 1)) return true;
  return a[i] === b[i + 1] && a[i + 1] === b[i] && rest(a, i + 2) === rest(b, i + 2);
}
