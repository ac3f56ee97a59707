import { DIFF_EQUAL, DIFF_INSERT, defaultOptions, diff } from 'diff-match-patch-es';

/** Seconds that a difference is looked for; what is found by then is right all the same, only longer. */
const SECONDS = 0.15;

/**
 * What makes one text of another, as JSON: characters (UTF-16 code units) kept, characters cut, text put in, and so on;
 * what comes after the last of them is kept. Myers, "An O(ND) Difference Algorithm and Its Variations" (1986), by
 * diff-match-patch. Halves of surrogate pairs stand in it escaped, as JSON.stringify writes them.
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

/** The text that a difference makes of another. Throws RangeError where it is not one of that text. */
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
