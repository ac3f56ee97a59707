/** Version 8: a repeat may name every other ribbon of its piece, and leaves out the rows that name none. */

type Doc = Record<string, unknown>;

const isDoc = (x: unknown): x is Doc => typeof x === 'object' && x !== null && !Array.isArray(x);
const listOf = (x: unknown, change: (item: unknown) => unknown) => (Array.isArray(x) ? x.map(change) : x);

/** Rows that were written down whether they named a ribbon or not. */
const ROWS = [
  'fourth',
  'fifth',
  'sixth',
  'seventh',
  'eighth',
  'ninth',
  'tenth',
  'eleventh',
  'twelfth',
  'thirteenth',
  'fourteenth',
  'fifteenth',
  'sixteenth',
];

function values(old: Doc): Doc {
  const out = { ...old };
  for (const row of ROWS) {
    if (out[row] === '') delete out[row];
    if (out[`${row}Share`] === 1) delete out[`${row}Share`];
  }
  return out;
}

export function from7to8(old: unknown): unknown {
  if (!isDoc(old)) return old;
  const step = (s: unknown) =>
    isDoc(s) && isDoc(s.values) && 'takes' in s.values ? { ...s, values: values(s.values) } : s;
  const ribbon = (r: unknown) => (isDoc(r) ? { ...r, steps: listOf(r.steps, step) } : r);
  return { ...old, ...('ribbons' in old ? { ribbons: listOf(old.ribbons, ribbon) } : {}), version: 8 };
}
