import type { Params, Unit } from '../declare/params';
import { isShown } from '../declare/shown';

/** Most numbers of an example. */
const MOST = 2;

/** A factor stands alone: a sign of multiplication between two numbers would join them. */
const unitOf = (unit: Unit): string => (['', '×'].includes(unit) ? '' : ['°', '%'].includes(unit) ? unit : ` ${unit}`);

/**
 * A line that adds a thing with its usual values by their names; null for what has no numbers. Of a title with commas
 * nothing can be said.
 */
export function exampleLine({ title, params }: { readonly title: string; readonly params: Params }): string | null {
  if (title.includes(',')) return null;
  const numbers = Object.entries(params)
    .flatMap(([name, p]) =>
      p.type === 'number' && !p.more && !p.sparse && !p.seeds && isShown(params, {}, name) ? [p] : [],
    )
    .slice(0, MOST)
    .map((p) => `${p.title.toLowerCase()} ${p.default}${unitOf(p.unit)}`);
  if (numbers.length === 0) return null;
  return `${title.toLowerCase()} ${numbers.join(' ')}`;
}
