import type { Address } from '@maypole/core/piece/addresses';

/** What a field of a column sets, so that others can set it along. */
interface Joinable {
  readonly addresses: readonly Address[];
  /** Only fields of one range and unit are set alike. */
  readonly range: string;
}

const joinables = new WeakMap<Element, Joinable>();

export const noteJoinable = (field: Element, joinable: Joinable): void => void joinables.set(field, joinable);

const valuesAround = (field: Element): HTMLElement[] => [
  ...(field.closest('[data-values]')?.querySelectorAll<HTMLElement>('[role="spinbutton"]') ?? []),
];

/** The next number of the same card, or the one before; null if there is none. */
export function valueBeside(field: Element, by: 1 | -1): HTMLElement | null {
  const all = valuesAround(field);
  const at = all.findIndex((f) => f === field);
  return at < 0 ? null : (all[at + by] ?? null);
}

/** Fields of the same range from a field to a height on the screen, without those that a motion drives. */
export function fieldsUntil(field: Element, y: number): HTMLElement[] {
  const own = joinables.get(field);
  const middle = (f: Element) => {
    const { top, height } = f.getBoundingClientRect();
    return top + height / 2;
  };
  const start = middle(field);
  return valuesAround(field).filter((f) => {
    if (f === field || f.ariaReadOnly === 'true' || !own || joinables.get(f)?.range !== own.range) return false;
    const at = middle(f);
    const half = f.offsetHeight / 2;
    return y > start ? at > start && at - half < y : at < start && at + half > y;
  });
}

export const addressesOf = (fields: Iterable<Element>): Address[] =>
  [...fields].flatMap((f) => joinables.get(f)?.addresses ?? []);
