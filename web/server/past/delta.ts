import { DIFF_EQUAL, DIFF_INSERT, defaultOptions, diff } from 'diff-match-patch-es';

/** Seconds to search for a difference; a result found by then is valid, only longer. */
const SECONDS = 0.15;

/**
 * Difference between two texts, as JSON: characters (UTF-16 code units) kept, characters cut, text inserted, and so on;
 * the rest is kept. Myers, "An O(ND) Difference Algorithm and Its Variations" (1986), by diff-match-patch. Unpaired
 * surrogates are escaped, as by JSON.stringify.
 */
export function deltaOf(from: string, to: string): string {
  const out: (number | string)[] = [];
  let [kept, cut, put] = [0, 0, ''];
  const flush = () => {
    if (!cut && !put) return;
    out.push(kept, cut, put);
    [kept, cut, put] = [0, 0, ''];
  };
  for (const [what, text] of diff(from, to, { ...defaultOptions, diffTimeout: SECONDS })) {
    if (what === DIFF_EQUAL) {
      flush();
      kept += text.length;
    } else if (what === DIFF_INSERT) put += text;
    else cut += text.length;
  }
  flush();
  return JSON.stringify(out);
}

/** Applies a difference to a text. Throws RangeError if it does not fit. */
export function withDelta(from: string, delta: string): string {
  const parts: unknown = JSON.parse(delta);
  if (!Array.isArray(parts) || parts.length % 3 !== 0) throw new RangeError('This is no difference of texts.');
  let [out, at] = ['', 0];
  for (let i = 0; i < parts.length; i += 3) {
    const [kept, cut, put] = parts.slice(i, i + 3);
    if (!isCount(kept) || !isCount(cut) || typeof put !== 'string' || at + kept + cut > from.length)
      throw new RangeError(`This difference is of another text: it goes past ${from.length} characters.`);
    out += from.slice(at, at + kept) + put;
    at += kept + cut;
  }
  return out + from.slice(at);
}

const isCount = (x: unknown): x is number => Number.isInteger(x) && (x as number) >= 0;
