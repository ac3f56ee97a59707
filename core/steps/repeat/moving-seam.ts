import { gcd, lcm } from '../../maths/rational';
import type { StepSeam } from '../step';
import type { RepeatValues } from './common';
import { countOthers } from './sources';

/**
 * Why copies that move on by whole places do not close, and what would close them: each carries something that the next
 * one does not have. Null if they close, or if they move by fractions of places, which the value itself reports.
 *
 * @param counts copies in each of the rows or rings that move
 * @param frames of the loop
 * @param counter the parameter that sets the count; absent if rows differ
 * @param apart what else distinguishes the copies of a row
 */
export function movingSeam(
  v: RepeatValues & { readonly advance: number },
  counts: readonly number[],
  frames: number,
  counter?: string,
  apart?: string,
): StepSeam | null {
  const { advance } = v;
  if (advance === 0 || !Number.isInteger(advance)) return null;
  const others = countOthers(v);
  const kinds = v.takes === 'turn' ? 1 + others : 1;
  const own = [
    // Delays that differ by whole loops are the same.
    ...(v.later !== 0 && [advance, ...counts].some((n) => (n * v.later) % frames !== 0) ? ['its own time'] : []),
    ...(v.quarters !== 'none' ? ['its own quarter turn'] : []),
    ...(v.takes === 'chance' && others > 0 ? ['its own source'] : []),
    ...(apart ? [apart] : []),
  ];
  const home = counts.every((n) => advance % n === 0);
  if (home || (own.length === 0 && advance % kinds === 0 && (kinds === 1 || counts.every((n) => n % kinds === 0))))
    return null;
  const one = counts.every((n) => n === counts[0]) ? counts[0] : null;
  const upTo = (step: number) => Math.sign(advance) * step * Math.ceil(Math.abs(advance) / step);
  const by = (a: number, more: Record<string, number> = {}) => ({
    words: [...Object.values(more).map((n) => `${n} copies`), `Move on by ${a}`].join(', '),
    values: { ...more, advance: a },
  });
  const repairs = [];
  if (own.length === 0) {
    if (counts.every((n) => n % kinds === 0)) repairs.push(by(upTo(kinds)));
    else if (one !== null && counter) repairs.push(by(upTo(kinds), { [counter]: kinds * Math.ceil(one / kinds) }));
  }
  if (one !== null) repairs.push(by(upTo(one)));
  if (own.length === 1 && own[0] === 'its own time' && kinds === 1)
    repairs.push({ words: 'All at one time', values: { later: 0 } });
  const places = `${Math.abs(advance)} place${Math.abs(advance) === 1 ? '' : 's'}`;
  const words =
    own.length > 0
      ? `Copies move on by ${places}, and each takes ${own.join(' and ')} along, which the one it comes to replace has not.`
      : `Copies of ${kinds} ribbons in turn move on by ${places}, so that others stand where they stood.`;
  // After so many loops every copy is back at its start.
  return { words, loops: counts.map((n) => n / gcd(n, Math.abs(advance))).reduce(lcm), repairs };
}
