/** Version 6: endless forms may be shown exactly; those that are there stay the faces that were made of them. */

type Doc = Record<string, unknown>;

const isDoc = (x: unknown): x is Doc => typeof x === 'object' && x !== null && !Array.isArray(x);
const listOf = (x: unknown, change: (item: unknown) => unknown) => (Array.isArray(x) ? x.map(change) : x);

export function from5to6(old: unknown): unknown {
  if (!isDoc(old)) return old;
  const step = (s: unknown) =>
    isDoc(s) && s.kind === 'endless' && isDoc(s.values) ? { ...s, values: { ...s.values, drawn: 'faces' } } : s;
  const ribbon = (r: unknown) => (isDoc(r) ? { ...r, steps: listOf(r.steps, step) } : r);
  return { ...old, ...('ribbons' in old ? { ribbons: listOf(old.ribbons, ribbon) } : {}), version: 6 };
}
