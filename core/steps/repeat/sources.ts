import { LIMITS } from '../../declare/limits';
import { number, ribbon, type NumberParam, type When } from '../../declare/params';
import { widened } from '../../declare/widen';
import type { StepContext } from '../step';

const SEVERAL = { param: 'takes', is: ['turn', 'chance', 'patches'] };
const BY_SHARE = { param: 'takes', is: ['chance'] };

const UNITS = ['first', 'second', 'third', 'fourth', 'fifth', 'sixth', 'seventh', 'eighth', 'ninth', 'tenth'];
const TEENS = ['tenth', 'eleventh', 'twelfth', 'thirteenth', 'fourteenth', 'fifteenth', 'sixteenth', 'seventeenth'];
const LATE_TEENS = ['eighteenth', 'nineteenth'];
const TENS = ['twenty', 'thirty', 'forty', 'fifty', 'sixty'];

/** English ordinals: 2 is “second”, 63 “sixty-third”. From 1 to 69. */
export function ordinal(n: number): string {
  if (n < 10) return UNITS[n - 1];
  if (n < 20) return [...TEENS, ...LATE_TEENS][n - 10];
  const tens = TENS[Math.floor(n / 10) - 2];
  return n % 10 === 0 ? `${tens.slice(0, -1)}ieth` : `${tens}-${UNITS[(n % 10) - 1]}`;
}

/** “sixty-third” as the name of a value: sixtyThird. */
const named = (words: string) => words.replace(/-(.)/, (_, first: string) => first.toUpperCase());

/** Parameters that name the further ribbons of a repeat, in order: as many as a piece may have. */
export const SOURCES: readonly string[] = Array.from({ length: LIMITS.ribbons - 1 }, (_, k) => named(ordinal(k + 2)));

/**
 * Rows for the second and third ribbon are always shown; each further row appears once the one before it names a
 * ribbon.
 */
const ALWAYS = 2;

const shareOf = (title: string, help: string, also: readonly When[] = [], sparse = false) =>
  number(title, 1, help, { min: 0, max: 1000, soft: [0, 4], shownWhen: [BY_SHARE, ...also], sparse });

/** A row for each ribbon, and one for its share. Only the first is typed by name. */
export const sourceParams = widened<{ readonly firstShare: NumberParam }>(
  Object.fromEntries([
    ['firstShare', shareOf('Share of this', 'How often this ribbon is used, relative to the others.')],
    ...SOURCES.flatMap((name, k) => {
      const words = ordinal(k + 2);
      const sparse = k >= ALWAYS;
      const before = sparse ? [{ param: SOURCES[k - 1], not: [''] }] : [];
      return [
        [
          name,
          ribbon(`${words[0].toUpperCase()}${words.slice(1)}`, 'Another ribbon that is copied.', {
            shownWhen: [SEVERAL, ...before],
            sparse,
          }),
        ],
        [`${name}Share`, shareOf(`Share of ${words}`, `How often the ${words}.`, [{ param: name, not: [''] }], sparse)],
      ];
    }),
  ]),
);

/** The shares of this ribbon and of the further ones. */
export function sharesOf(v: { readonly firstShare: number }, others: readonly string[]): number[] {
  const values = v as { readonly firstShare: number } & Readonly<Record<string, number>>;
  return [v.firstShare, ...others.map((name) => values[`${name}Share`])];
}

/** The rows that count: a row that is hidden because an earlier one is empty does not. */
function counted(names: (row: string) => boolean): readonly string[] {
  const there = SOURCES.map(names);
  const gap = there.indexOf(false, ALWAYS - 1);
  return SOURCES.filter((_, k) => there[k] && (k < ALWAYS || gap < 0 || k < gap));
}

/** The rows that name an existing ribbon. */
export const namedBy = (context: StepContext) => counted((row) => context.otherAt?.(row, 0) !== undefined);

/** How many further ribbons are named, whether they exist or not. */
export function countOthers(v: object): number {
  const values = v as Readonly<Record<string, unknown>>;
  return counted((row) => values[row] !== '').length;
}
